/**
 * Puts a text on the clipboard, with its formatted form for word processors where there is one.
 * @param made what is copied, while it may still be on its way: some browsers ask for it within the press itself
 * Rejects where the browser does not allow it.
 */
export async function copyFormatted(
  made: Promise<{ plain: string; html: string | null }>,
  hasHtml: boolean,
): Promise<void> {
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
  await navigator.clipboard.write([new ClipboardItem(items)]);
}
