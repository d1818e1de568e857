import { fileTypeFromBuffer, fileTypeFromFile } from 'file-type/node';

/** What a file is by its own bytes. Names and types that come with it are never believed. */
export type Container = {
  kind: 'sound' | 'video' | 'picture';
  /** The media type under which it may be shown (RFC 9110, 8.3.1). */
  mediaType: string;
  /** Of the name under which it is kept, with its dot. */
  extension: string;
  /** The one demuxer of ffmpeg that may read it. Demuxers of lists and scripts are not among them. */
  demuxer: string;
};

const sound = (mediaType: string, extension: string, demuxer: string): Container => ({
  ...{ kind: 'sound', mediaType, extension, demuxer },
});
const video = (mediaType: string, extension: string, demuxer: string): Container => ({
  ...{ kind: 'video', mediaType, extension, demuxer },
});
const picture = (mediaType: string, extension: string, demuxer: string): Container => ({
  ...{ kind: 'picture', mediaType, extension, demuxer },
});

/** Everything that Immeld takes in, by the ending that the package gives to what it recognises. */
const CONTAINERS: ReadonlyMap<string, Container> = new Map([
  ['wav', sound('audio/wav', '.wav', 'wav')],
  ['mp3', sound('audio/mpeg', '.mp3', 'mp3')],
  ['mp2', sound('audio/mpeg', '.mp3', 'mp3')],
  ['m4a', sound('audio/mp4', '.m4a', 'mov')],
  ['m4b', sound('audio/mp4', '.m4a', 'mov')],
  ['aac', sound('audio/aac', '.aac', 'aac')],
  ['ogg', sound('audio/ogg', '.ogg', 'ogg')],
  ['oga', sound('audio/ogg', '.ogg', 'ogg')],
  ['opus', sound('audio/ogg', '.ogg', 'ogg')],
  ['spx', sound('audio/ogg', '.ogg', 'ogg')],
  ['flac', sound('audio/flac', '.flac', 'flac')],
  ['aif', sound('audio/aiff', '.aiff', 'aiff')],
  ['amr', sound('audio/amr', '.amr', 'amr')],
  // Recorders of browsers write sound alone as WebM; whether it has a picture is known once it was decoded.
  ['webm', sound('audio/webm', '.webm', 'matroska')],
  ['asf', sound('audio/x-ms-asf', '.wma', 'asf')],
  ['mp4', video('video/mp4', '.mp4', 'mov')],
  ['m4v', video('video/mp4', '.mp4', 'mov')],
  ['mov', video('video/quicktime', '.mov', 'mov')],
  ['3gp', video('video/3gpp', '.3gp', 'mov')],
  ['3g2', video('video/3gpp2', '.3g2', 'mov')],
  ['mkv', video('video/matroska', '.mkv', 'matroska')],
  ['ogv', video('video/ogg', '.ogv', 'ogg')],
  ['avi', video('video/vnd.avi', '.avi', 'avi')],
  ['png', picture('image/png', '.png', 'png_pipe')],
  ['jpg', picture('image/jpeg', '.jpg', 'jpeg_pipe')],
  ['gif', picture('image/gif', '.gif', 'gif')],
  ['webp', picture('image/webp', '.webp', 'webp_pipe')],
]);

const containerCalled = (ext: string | undefined): Container | null => (ext && CONTAINERS.get(ext)) || null;

/** The container of a file, or null where it is none that Immeld takes in. Rejects where the file cannot be opened. */
export const containerOf = async (file: string): Promise<Container | null> =>
  containerCalled((await fileTypeFromFile(file))?.ext);

/** The same for bytes. */
export const containerOfBytes = async (bytes: Uint8Array): Promise<Container | null> =>
  containerCalled((await fileTypeFromBuffer(bytes))?.ext);
