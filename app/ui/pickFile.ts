export const PICTURE_TYPES = 'image/png,image/jpeg,image/webp,image/gif';

/**
 * Lets the person choose a file; to be called while a press is being answered, else browsers refuse it.
 * @param accept endings and media types as HTML's `accept` takes them; without it everything
 * @returns null where it was called off
 */
export function pickFile(accept?: string): Promise<File | null> {
  const field = document.createElement('input');
  Object.assign(field, { type: 'file', ...(accept ? { accept } : {}) });
  return new Promise((resolve) => {
    field.onchange = () => resolve(field.files?.[0] ?? null);
    field.oncancel = () => resolve(null);
    field.click();
  });
}
