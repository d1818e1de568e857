/** Whether a key is typed into something and must not act as a key of the app. */
export const isInField = (event: Event): boolean =>
  (event.target as HTMLElement).closest('input, textarea, [contenteditable="true"]') !== null;

/** Whether what has the focus needs Enter and the blank for itself. */
export const isOnControl = (target: Element): boolean =>
  target.closest(
    'button, a, [role=button], [role=link], [role=checkbox], [role=radio], [role=switch][data-keyed=true], [role=tab]',
  ) !== null;
