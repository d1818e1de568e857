/** A text, and its formatted form for word processors where there is one. */
export type Copied = { plain: string; html: string | null };

/** What is said where no way of the browser put it on the clipboard. */
export const NOT_COPIED = 'The browser blocked copying.';

/**
 * Puts a text on the clipboard, also on a page that is not secure (an address of the own network), where browsers have only
 * the older way. Rejects where the browser does not allow it.
 * @param made what is copied, while it may still be on its way: some browsers ask for it within the press itself
 */
export async function copyFormatted(made: Promise<Copied>, hasHtml: boolean): Promise<void> {
  // A page that is not secure has no such object.
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (!clipboard?.write) return copyByEvent(await made);
  const part = (type: string, text: Promise<string>) => text.then((t) => new Blob([t], { type }));
  const items: Record<string, Promise<Blob>> = {
    'text/plain': part(
      'text/plain',
      made.then((m) => m.plain),
    ),
  };
  if (hasHtml)
    items['text/html'] = part(
      'text/html',
      made.then((m) => m.html ?? ''),
    );
  await clipboard.write([new ClipboardItem(items)]);
}

/** The same for plain text that is there already. */
export async function copyText(text: string): Promise<void> {
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (clipboard) return clipboard.writeText(text);
  copyByEvent({ plain: text, html: null });
}

/** The Clipboard API and events of the W3C: what a listener of `copy` sets is copied in place of the selection. */
function copyByEvent({ plain, html }: Copied): void {
  let isTaken = false;
  const give = (event: ClipboardEvent) => {
    if (!event.clipboardData) return;
    event.clipboardData.setData('text/plain', plain);
    if (html !== null) event.clipboardData.setData('text/html', html);
    event.preventDefault();
    event.stopImmediatePropagation();
    isTaken = true;
  };
  document.addEventListener('copy', give, { capture: true });
  try {
    document.execCommand('copy');
  } finally {
    document.removeEventListener('copy', give, { capture: true });
  }
  if (!isTaken) throw new Error(NOT_COPIED);
}
