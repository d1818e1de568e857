const READ_WITHIN_MS = 60_000;

/** Lets the browser keep something as a file under a name. */
export function saveFile(content: Blob, name: string): void {
  const address = URL.createObjectURL(content);
  const link = document.createElement('a');
  Object.assign(link, { href: address, download: name.replace(/[\\/:*?"<>|]+/g, ' ') });
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), READ_WITHIN_MS);
}
