export const BITS_PER_SECOND = 48_000;
/** In the order in which they are wanted. */
const TYPES = ['audio/webm;codecs=opus', 'audio/mp4', 'audio/ogg;codecs=opus'];

/** A recorder of the first kind that this browser has, and the ending that files of its kind have. */
export function openRecorder(stream: MediaStream): { recorder: MediaRecorder; extension: string } {
  const type = TYPES.find((t) => MediaRecorder.isTypeSupported(t));
  const recorder = new MediaRecorder(stream, {
    ...(type ? { mimeType: type } : {}),
    audioBitsPerSecond: BITS_PER_SECOND,
  });
  return { recorder, extension: extensionOf(recorder.mimeType) };
}

function extensionOf(mediaType: string): string {
  if (mediaType.includes('mp4')) return 'm4a';
  return mediaType.includes('ogg') ? 'ogg' : 'webm';
}
