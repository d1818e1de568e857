import type { Response } from 'express';
import { type Container, containerOf } from '../media/container';

/** What Express says of one that left before the answer began. */
const LEFT = 'ECONNABORTED';
const BEYOND_THE_END = 416;

/**
 * Answers with a kept file, in ranges where they are asked for (RFC 9110, 14). The headers are the caller's.
 * The data folder may lie below a folder that is hidden, as the usual one does: such files are sent too.
 * One who leaves, or asks for another range instead, is no error.
 * @throws the file system's error where nothing was sent yet
 */
export async function sendStoredFile(
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

/** What may be done with bytes that a person brought: nothing. They are played, shown or kept, never run (CSP 3). */
export const USER_CONTENT_HEADERS = {
  'Content-Security-Policy': "sandbox; default-src 'none'",
  'X-Content-Type-Options': 'nosniff',
  'Cross-Origin-Resource-Policy': 'same-origin',
} as const;

/**
 * Answers with a file that a person brought, in ranges. Its type is found in its bytes, whatever it was called when it came:
 * a sound, video or picture is shown; everything else can only be kept. The browser may keep it but asks each time before
 * it uses it, so that it is gone with the session.
 * @param shows kinds that are shown here
 * @param name under which it is kept where it is not shown
 * @param asVideo whether a sound is known to have a moving picture beside it
 */
export async function sendUserFile(
  response: Response,
  file: string,
  { shows, name = 'file', asVideo = false }: { shows: readonly Container['kind'][]; name?: string; asVideo?: boolean },
): Promise<void> {
  const container = await containerOf(file);
  const isShown = container !== null && shows.includes(container.kind);
  response.set(USER_CONTENT_HEADERS);
  response.set('Cache-Control', 'private, no-cache');
  if (!isShown) response.attachment(name);
  const type = isShown ? container.mediaType : 'application/octet-stream';
  response.type(asVideo ? type.replace('audio/', 'video/') : type);
  await sendStoredFile(response, file, { cacheControl: false });
}
