import { Problem } from '@immeld/core/contract/problem';
import { imageSize } from 'image-size';
import { type Container, containerOfBytes } from './container';

/** A camera's picture has 12 to 50 million pixels; unpacked each of them takes four bytes and more. */
export const MAX_PIXELS = 100_000_000;

export type MeasuredPicture = { container: Container; width: number; height: number };

const inMillions = (pixels: number): string => `${Math.round(pixels / 1e6).toLocaleString('en')} million`;

/**
 * Kind and size of a picture, read from its head: nothing is unpacked. Width and height in pixels.
 * @throws Problem where it is no PNG, JPEG, GIF or WebP, or has more than 100 million pixels
 */
export async function measurePicture(bytes: Buffer): Promise<MeasuredPicture> {
  const container = await containerOfBytes(bytes);
  const size = container?.kind === 'picture' ? sizeOf(bytes) : null;
  if (!container || !size) {
    throw new Problem('invalid-request', 'This is not a picture that Immeld can show. Use PNG, JPEG, GIF or WebP.');
  }
  const pixels = size.width * size.height;
  if (pixels > MAX_PIXELS) {
    throw new Problem(
      'too-large',
      `This picture has ${inMillions(pixels)} pixels. The limit is ${inMillions(MAX_PIXELS)}. Make it smaller and try again.`,
    );
  }
  return { container, ...size };
}

function sizeOf(bytes: Buffer): { width: number; height: number } | null {
  try {
    const { width, height } = imageSize(bytes);
    return width > 0 && height > 0 ? { width, height } : null;
  } catch {
    return null;
  }
}
