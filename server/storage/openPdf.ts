/** Opens a PDF for reading its words. Rejects where it has a password or is damaged. */
export async function openPdf(bytes: Uint8Array) {
  // The package asks for this class of browsers while it loads; reading words does without it.
  (globalThis as { DOMMatrix?: unknown }).DOMMatrix ??= class {};
  // It is a module of its own kind and looks for its parts beside itself: it stays outside the bundle.
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // What it is given is handed to its own worker and is empty afterwards.
  return getDocument({ data: bytes.slice(), isEvalSupported: false, verbosity: 0 }).promise;
}
