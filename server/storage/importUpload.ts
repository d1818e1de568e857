import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Op, col, where } from 'sequelize';
import { appointmentFor } from '../calendar/calendars';
import { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { containerOf } from '../media/container';
import { placeFrom } from '../recognition/fileTags';
import { type SoundStore, sha256Of } from './soundStore';

/** What is known of a file that comes in. `startedAt` is local time of the person, `2026-03-09T07:40:12`. */
export type ImportedUpload = {
  fileName: string;
  startedAt: string | null;
  durationMs: number | null;
  source: 'speak' | 'import' | 'demo';
  /** The device's own name for what it captured. */
  captureId?: string | null;
  isRecovered?: boolean;
  /** IANA name of the time zone in which it was recorded. */
  zone?: string | null;
  /** The appointment it was started from. */
  appointmentId?: string | null;
  /** The recording that this sound goes on with. */
  appendTo?: string | null;
  /** The recording to which this file is the moving picture. */
  videoOf?: string | null;
  /** Where it was recorded, as its file says: ISO 6709. */
  place?: string | null;
  /** Spoken commands are to be done. */
  isDictation?: boolean;
  /** Thrown away while recording: it comes in, but lies in the bin. */
  isThrownAway?: boolean;
};

const MAX_NAME = 255;
const LOCAL_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?/;

const nowLocal = (): string => {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
};

/** A long name is cut in the middle, so that its ending still tells the kind; never through a character. */
export function shortenedName(fileName: string): string {
  const plain =
    path
      .basename(fileName.replace(/\\/g, '/'))
      .replace(/\p{Cc}+/gu, ' ')
      .trim() || 'Recording';
  const characters = [...plain];
  if (characters.length <= MAX_NAME) return plain;
  const extension = path.extname(plain).slice(0, 12);
  return `${characters.slice(0, MAX_NAME - extension.length - 1).join('')}…${extension}`;
}

/** What is not known to be a sound or video can be kept and fetched, not shown. */
const UNKNOWN = { mediaType: 'application/octet-stream', extension: '.bin' };

/**
 * Makes a recording of a file that has arrived whole. The sound is moved, never copied or changed; the same sound
 * again gives the recording that is already here, out of the bin if it lay there.
 */
export async function importUpload(
  file: string,
  intake: ImportedUpload,
  sounds: SoundStore,
): Promise<{ recording: Recording; sha256: string; isNew: boolean; isAlreadyHere: boolean }> {
  const sha256 = await sha256Of(file);
  const { size } = await fs.promises.stat(file);
  const { captureId = null, isRecovered = false, isThrownAway = false } = intake;
  const sentBefore = captureId ? await Recording.findOne({ where: { captureId } }) : null;
  const added = captureId ? ((await recordingWithAdded(captureId)) ?? (await recordingWithVideo(captureId))) : null;
  if (added) {
    await fs.promises.rm(file, { force: true });
    return { recording: added, sha256, isNew: false, isAlreadyHere: false };
  }
  const withVideo = intake.videoOf ? await Recording.findByPk(intake.videoOf) : null;
  if (withVideo) {
    const { mediaType, extension } = (await containerOf(file)) ?? UNKNOWN;
    const video = `${randomUUID()}${extension}`;
    await sounds.take(file, video);
    const shown = mediaType.replace('audio/', 'video/');
    await withVideo.update({ video: { file: video, mediaType: shown, captureId, sha256, sizeBytes: size } });
    return { recording: withVideo, sha256, isNew: false, isAlreadyHere: false };
  }
  const isSentAgain = sentBefore?.sha256 === sha256;
  // The device sends anew when what arrived was not what it had: the good one takes the name.
  if (sentBefore && !isSentAgain) await sentBefore.update({ captureId: null });
  const same = isSentAgain ? sentBefore : size > 0 ? await Recording.findOne({ where: { sha256 } }) : null;
  if (same) {
    await fs.promises.rm(file, { force: true });
    if (!isSentAgain) {
      await same.update({ captureId: captureId ?? same.captureId, ...(isThrownAway ? {} : { binnedAt: null }) });
    }
    return { recording: same, sha256, isNew: false, isAlreadyHere: !isSentAgain };
  }
  const whole = size > 0 ? await recordingWithPart(sha256) : null;
  if (whole) {
    await fs.promises.rm(file, { force: true });
    // The device that sent it now asks for the receipt by its own name for it.
    const moreSounds = whole.moreSounds.map((part) =>
      part.sha256 === sha256 ? { ...part, captureId: captureId ?? part.captureId } : part,
    );
    await whole.update({ moreSounds, ...(isThrownAway ? {} : { binnedAt: null }) });
    return { recording: whole, sha256, isNew: false, isAlreadyHere: true };
  }
  const continued = intake.appendTo ? await Recording.findByPk(intake.appendTo) : null;
  if (continued) {
    await append(continued, file, { sha256, size, intake }, sounds);
    return { recording: continued, sha256, isNew: true, isAlreadyHere: false };
  }
  const id = randomUUID();
  const fileName = shortenedName(intake.fileName);
  const startedAt = intake.startedAt && LOCAL_TIME.test(intake.startedAt) ? intake.startedAt.slice(0, 19) : nowLocal();
  const appointment =
    intake.source === 'speak' ? await appointmentFor(startedAt, intake.zone ?? null, intake.appointmentId) : null;
  const { mediaType, extension } = (await containerOf(file)) ?? UNKNOWN;
  const soundFile = `${id}${extension}`;
  await sounds.take(file, soundFile);
  const recording = await Recording.create({
    id,
    title: null,
    fileName,
    source: intake.source,
    mediaType,
    soundFile,
    playbackFile: null,
    sha256,
    sizeBytes: size,
    durationMs: intake.durationMs,
    ...{ startedAt, appointment, isDictation: intake.isDictation ?? false },
    arrivedAt: intake.source === 'import' ? nowLocal() : null,
    place: (await sharedSettings()).takesPlace ? placeFrom(intake.place) : null,
    state: 'waiting',
    problem: null,
    ...{ folderId: null, filedAt: null, peaks: [], model: null, language: null },
    ...{ captureId, isRecovered, binnedAt: isThrownAway ? new Date() : null },
    suggestion: { title: appointment?.title || null, folderId: null, tags: [] },
  });
  return { recording, sha256, isNew: true, isAlreadyHere: false };
}

/** The recording to which this capture was added, if it was. */
export const recordingWithAdded = (captureId: string): Promise<Recording | null> =>
  Recording.findOne({ where: where(col('more_sounds'), { [Op.like]: `%"captureId":"${captureId}"%` }) });

/** The recording to which this very sound was added, if it was to any. */
const recordingWithPart = (sha256: string): Promise<Recording | null> =>
  Recording.findOne({ where: where(col('more_sounds'), { [Op.like]: `%"sha256":"${sha256}"%` }) });

/** The recording whose moving picture this capture is. */
export const recordingWithVideo = (captureId: string): Promise<Recording | null> =>
  Recording.findOne({ where: where(col('video'), { [Op.like]: `%"captureId":"${captureId}"%` }) });

/** Adds a sound to the end of a recording; its own file stays as it came. */
async function append(
  recording: Recording,
  file: string,
  { sha256, size, intake }: { sha256: string; size: number; intake: ImportedUpload },
  sounds: SoundStore,
): Promise<void> {
  const fileName = shortenedName(intake.fileName);
  const { extension } = (await containerOf(file)) ?? UNKNOWN;
  const soundFile = `${randomUUID()}${extension}`;
  await sounds.take(file, soundFile);
  const { captureId = null } = intake;
  const startedAt = intake.startedAt && LOCAL_TIME.test(intake.startedAt) ? intake.startedAt.slice(0, 19) : nowLocal();
  await recording.update({
    moreSounds: [
      ...recording.moreSounds,
      { soundFile, fileName, sha256, sizeBytes: size, captureId, startedAt, slipId: randomUUID() },
    ],
  });
}
