/** Why something failed, as a sentence for people. */
export function reasonOf(error: unknown): string {
  const { code } = (error ?? {}) as NodeJS.ErrnoException;
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') {
    return 'It may not be read or written here: permission denied.';
  }
  if (code === 'ENOSPC') return 'The disk is full.';
  return error instanceof Error ? error.message : String(error);
}
