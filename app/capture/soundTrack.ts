import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  Conversion,
  Input,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import { localTime } from '../ui/dates';
import { VIDEO_NAMES } from './importFiles';
import { eraseTimes, readMp4Metadata } from './mp4Metadata';

/** Taking the sound out is not worth it when nearly all of the file is sound. */
const WORTH_IT = 0.8;
/** The sound track is put together in memory. */
const MAX_TRACK_BYTES = 1.5 * 1024 ** 3;

/** The sound of a video as a file of its own; when (local time) and where (ISO 6709) the video says it was made. */
export type SoundTrack = { file: File; madeAt: string | null; place: string | null };

/**
 * Copies the sound track out of a video, packet by packet, without encoding it anew.
 * @returns null when there is nothing to gain or this kind of video cannot be taken apart here: it is then sent whole
 */
export async function soundTrackOf(file: File): Promise<SoundTrack | null> {
  try {
    return await copied(file);
  } catch {
    // Damaged or unknown: the server's decoder knows more kinds than the browser.
    return null;
  }
}

async function copied(file: File): Promise<SoundTrack | null> {
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS });
  const [video, sound] = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()];
  if (!video || !sound) return null;
  const codec = await sound.getCodec();
  const isMp4 = codec === 'aac' || codec === 'mp3';
  if (!isMp4 && codec !== 'opus' && codec !== 'vorbis') return null;
  const target = new BufferTarget();
  const output = new Output({ format: isMp4 ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
  const conversion = await Conversion.init({
    ...{ input, output, tracks: 'primary', showWarnings: false },
    video: { discard: true },
    tags: ({ title, artist, album }) => ({ title, artist, album }),
  });
  if (!conversion.isValid) return null;
  const { averageBitrate } = await sound.computePacketStats(500);
  if ((averageBitrate / 8) * (await sound.computeDuration()) > MAX_TRACK_BYTES) return null;
  await conversion.execute();
  const bytes = target.buffer;
  if (!bytes || bytes.byteLength > file.size * WORTH_IT) return null;
  if (isMp4) eraseTimes(bytes);
  const { madeAt, place } = await readMp4Metadata(file);
  const name = file.name.replace(VIDEO_NAMES, '') + (isMp4 ? '.m4a' : '.webm');
  return {
    file: new File([bytes], name, { type: isMp4 ? 'audio/mp4' : 'audio/webm', lastModified: file.lastModified }),
    madeAt: madeAt && localTime(madeAt),
    place,
  };
}
