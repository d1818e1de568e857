/** Why something failed, as a sentence for people. */
export function reasonOf(error: unknown): string {
  const { code } = (error ?? {}) as NodeJS.ErrnoException;
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') {
    return 'Permission denied: the file cannot be read or written.';
  }
  if (code === 'ENOSPC') return 'The disk is full.';
  return error instanceof Error ? error.message : String(error);
}
