import type { Response } from 'express';

/** What Express says of one that left before the answer began. */
const LEFT = 'ECONNABORTED';
const BEYOND_THE_END = 416;

/**
 * Answers with a kept file, in ranges where they are asked for (RFC 9110, 14). The headers are the caller's.
 * The data folder may lie below a folder that is hidden, as the usual one does: such files are sent too.
 * One who leaves, or asks for another range instead, is no error.
 * @throws the file system's error where nothing was sent yet
 */
export async function sendKept(
  response: Response,
  file: string,
  { cacheControl = true }: { cacheControl?: boolean } = {},
): Promise<void> {
  await new Promise<void>((resolve, reject) =>
    response.sendFile(file, { acceptRanges: true, cacheControl, dotfiles: 'allow' }, (error) => {
      const { status, code } = (error ?? {}) as { status?: number; code?: string };
      if (!error || response.headersSent || code === LEFT) return resolve();
      if (status !== BEYOND_THE_END) return reject(error);
      response.sendStatus(BEYOND_THE_END);
      resolve();
    }),
  );
}
