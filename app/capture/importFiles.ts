/** Endings of files that hold sound, where the browser does not know their type. */
const SOUND_NAMES = /\.(wav|mp3|m4a|m4b|aac|ogg|oga|opus|flac|webm|mp4|m4v|mov|mkv|amr|3gp|3ga|aiff?|wma|caf)$/i;

/** Endings of videos whose sound can be taken out on the device. */
export const VIDEO_NAMES = /\.(mp4|m4v|mov|webm|mkv)$/i;
export const isVideo = (file: File): boolean => file.type.startsWith('video/') || VIDEO_NAMES.test(file.name);

export type Sorted = {
  sounds: File[];
  /** Names of what is neither sound nor video. */
  others: string[];
};

/** Parts what can be brought in from what came along with it, such as the texts in a folder that was dropped. */
export function sortFiles(files: readonly File[]): Sorted {
  const isSound = (file: File) => /^(audio|video)\//.test(file.type) || SOUND_NAMES.test(file.name);
  const isHidden = (file: File) => file.name.startsWith('.');
  return {
    sounds: files.filter((f) => isSound(f) && !isHidden(f)),
    others: files.filter((f) => !isSound(f) && !isHidden(f)).map((f) => f.name),
  };
}

/** What to say about the files that were left out; null when none were. */
export function skippedFilesMessage(others: readonly string[]): string | null {
  if (others.length === 0) return null;
  if (others.length === 1) return `${others[0]} is not an audio or video file, so it was skipped.`;
  return `${others.length} files are not audio or video, so they were skipped.`;
}
