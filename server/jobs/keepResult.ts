import { randomUUID } from 'node:crypto';
import { inFigures } from '@immeld/core/transcript/figures';
import { SHORT_SUMMARY_SENTENCES } from '@immeld/core/writeup/shortSummary';
import { type Transaction } from 'sequelize';
import { indexRecording } from '../find/wordIndex';
import type { Video, Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SlipRow } from '../models/slip';
import { TodoRow } from '../models/todo';
import { TranscriptVersion } from '../models/transcriptVersion';
import { WriteUpRow } from '../models/writeUp';
import { MODEL_NAME } from '../recognition/modelFiles';
import type { SoundStore } from '../storage/soundStore';
import { isCorrected, layDown, passagesOf } from '../transcript/corrections';
import { withNamesOf } from '../transcript/speakers';
import type { WorkerResult } from './workerMessages';

/**
 * Lays a recognition down in one transaction. Recognised again, only what is still in pencil and unchanged is
 * replaced; what the person accepted, dropped or changed stays, and nothing is added twice.
 */
export async function keepResult(recording: Recording, result: WorkerResult, sounds: SoundStore): Promise<void> {
  const recordingId = recording.id;
  const { takesPlace, figures } = await sharedSettings();
  const inWriting = (text: string) => inFigures(text, new Set(figures));
  await recording.sequelize.transaction(async (transaction) => {
    // Its title or appointment may have been changed while it was recognised.
    await recording.reload({ transaction });
    // A text that somebody has corrected stays; the new recognition is a version beside it.
    const { passages, voices } = withNamesOf(
      await passagesOf(recordingId, transaction),
      result.passages,
      result.voices ?? [],
    );
    const isTextKept = await isCorrected(recordingId, transaction);
    if (isTextKept) {
      await TranscriptVersion.create({ recordingId, kind: 'again', passages }, { transaction });
    } else await layDown(recordingId, passages, false, transaction);
    await TodoRow.destroy({ where: { recordingId, state: 'pencil', isChanged: false }, transaction });
    const kept = await TodoRow.findAll({ where: { recordingId }, transaction });
    const isKnown = (text: string, startMs: number | null) =>
      kept.some((t) => t.startMs === startMs || t.text.toLowerCase() === text.toLowerCase());
    await TodoRow.bulkCreate(
      result.proposals.todos
        .map((t) => ({ ...t, text: inWriting(t.text) }))
        .filter((t) => !isKnown(t.text, t.startMs))
        .map(({ text, who, due, project, quote, startMs }) => ({
          ...{ recordingId, text, who, due, project, quote, startMs },
          ...{ state: 'pencil' as const, doneAt: null, binnedAt: null },
        })),
      { transaction },
    );
    await WriteUpRow.destroy({ where: { recordingId, state: 'pencil', editedText: null }, transaction });
    const hasSummary = await WriteUpRow.count({ where: { recordingId, template: 'short-summary' }, transaction });
    if (!hasSummary && result.proposals.summary.length > 0) {
      await WriteUpRow.create(
        {
          ...{ recordingId, template: 'short-summary', sentencesAsked: SHORT_SUMMARY_SENTENCES },
          ...{ state: 'pencil', editedText: null },
          sentences: result.proposals.summary.map((s) => ({ ...s, text: inWriting(s.text) })),
        },
        { transaction },
      );
    }
    await keepAsides(recordingId, result, transaction);
    await keepSeams(recording, result.seamsMs ?? [], transaction);
    const { title: proposed, folderId, tags } = result.proposals;
    const title = recording.appointment?.title || result.tags?.title || (proposed && inWriting(proposed));
    await recording.update(
      {
        state: 'ready',
        problem: null,
        durationMs: result.durationMs,
        video: recording.video ?? (result.tags?.hasVideo ? videoInSound(recording) : null),
        place: takesPlace ? (result.tags?.place ?? recording.place) : recording.place,
        ...(recording.source === 'import' && result.tags?.createdAt
          ? { startedAt: localText(new Date(result.tags.createdAt)) }
          : {}),
        peaks: result.peaks,
        ...(isTextKept ? {} : { voices }),
        suggestion: { title, folderId, tags },
        model: MODEL_NAME,
        language: 'en',
        playbackFile: result.hasPlaybackCopy
          ? sounds.playbackPlan(recording.soundFile, result.seamsMs?.length)!.fileName
          : null,
      },
      { transaction },
    );
    await indexRecording(recording, isTextKept ? null : passages, transaction);
  });
}

const videoInSound = ({ soundFile, mediaType, sha256, sizeBytes }: Recording): Video => ({
  file: soundFile,
  mediaType: mediaType.replace('audio/', 'video/'),
  captureId: null,
  sha256,
  sizeBytes,
});

/** An aside that is known already, even one that was changed or taken away, is not added a second time. */
const SAME_ASIDE_MS = 2000;

async function keepAsides(recordingId: string, { asides }: WorkerResult, transaction: Transaction): Promise<void> {
  const known = await SlipRow.findAll({ where: { recordingId, kind: 'aside' }, transaction });
  const fresh = asides.filter((a) => !known.some((k) => Math.abs(k.startMs - a.startMs) < SAME_ASIDE_MS));
  await SlipRow.bulkCreate(
    fresh.map(({ startMs, endMs, text, isClosed }) => ({
      ...{ id: randomUUID(), recordingId, kind: 'aside' as const, mark: null, startMs, endMs },
      ...{ pictureFile: null, binnedAt: null },
      text: isClosed ? text : `${text} (It was not closed: it ends at the pause.)`,
    })),
    { transaction },
  );
}

/** Where a sound was added later, a seam with its date stands in the margin; its slip keeps its place and name. */
async function keepSeams(recording: Recording, seamsMs: readonly number[], transaction: Transaction): Promise<void> {
  for (const [i, startMs] of seamsMs.entries()) {
    const sound = recording.moreSounds[i];
    if (!sound) continue;
    const known = await SlipRow.findByPk(sound.slipId, { transaction });
    if (known) await known.update({ startMs }, { transaction });
    else {
      await SlipRow.create(
        {
          ...{ id: sound.slipId, recordingId: recording.id, kind: 'seam', mark: null, startMs, endMs: null },
          ...{ text: `Added later: ${sound.fileName}, ${sound.startedAt.replace('T', ' ').slice(0, 16)}` },
          ...{ pictureFile: null, binnedAt: null },
        },
        { transaction },
      );
    }
  }
}

/** An instant as local time of this machine: `2026-03-09T07:40:12`. */
const localText = (instant: Date): string =>
  new Date(instant.getTime() - instant.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
