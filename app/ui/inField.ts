/** Whether a key is typed into something and must not act as a key of the app. */
export const isInField = (event: Event): boolean =>
  (event.target as HTMLElement).closest('input, textarea, [contenteditable="true"]') !== null;
