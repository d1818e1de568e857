import { dayInWords } from '@immeld/core/formats/times';
import { randomUUID } from 'node:crypto';
import { isNumbered } from '@immeld/core/speech/speakers/diarizer';
import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import { markParagraphs } from '@immeld/core/transcript/passages';
import { SHORT_SUMMARY_SENTENCES } from '@immeld/core/writeup/shortSummary';
import { type Transaction } from 'sequelize';
import type { Video, Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SlipRow } from '../models/slip';
import { TranscriptVersion } from '../models/transcriptVersion';
import { WriteUpRow } from '../models/writeUp';
import type { SoundStore } from '../storage/soundStore';
import { isCorrected, passagesOf, replaceAllPassages, replaceDraft } from '../transcript/corrections';
import { asDictation } from '../transcript/dictation';
import { withNamesOf } from '../transcript/speakers';
import { saveFoundTodos, findTodosIn } from '../todos/saveFoundTodos';
import type { WorkerResult } from './workerMessages';

/**
 * Lays a recognition down in one transaction. Recognised again, only what is still in pencil and unchanged is
 * replaced; what the person accepted, dropped or changed stays, and nothing is added twice.
 */
export async function saveRecognition(recording: Recording, result: WorkerResult, sounds: SoundStore): Promise<void> {
  const recordingId = recording.id;
  const { takesPlace, figures, paragraphKind: kind, paragraphPauseMs: pauseMs } = await sharedSettings();
  const inWriting = (text: string) => withNumerals(text, new Set(figures));
  await recording.sequelize.transaction(async (transaction) => {
    // Its title or appointment may have been changed while it was recognised.
    await recording.reload({ transaction });
    // A text that somebody has corrected stays; the new recognition is a version beside it.
    const { passages: heard, voices } = withNamesOf(
      await passagesOf(recordingId, transaction),
      result.passages,
      result.voices ?? [],
    );
    const passages = recording.isDictation ? await asDictation(heard) : heard;
    if (recording.isDictation) {
      await TranscriptVersion.create({ recordingId, kind: 'spoken', passages: heard }, { transaction });
    }
    // The worker has begun them in the usual way.
    if (kind !== 'usual' && !recording.isDictation) markParagraphs(passages, { kind, pauseMs });
    const hasCorrections = await isCorrected(recordingId, transaction);
    const isTextKept = hasCorrections && recording.draft === null;
    if (recording.draft !== null) await replaceDraft(recording, passages, transaction);
    else if (isTextKept) {
      await TranscriptVersion.create({ recordingId, kind: 'again', passages }, { transaction });
    } else await replaceAllPassages(recordingId, passages, false, transaction);
    // The worker knew nobody by name, and not what a person has corrected.
    const isNamed = passages.some(({ speaker }) => speaker !== null && !isNumbered(speaker));
    const inForce = hasCorrections ? await passagesOf(recordingId, transaction) : passages;
    const todos = isNamed || hasCorrections ? await findTodosIn(recording, inForce) : result.proposals.todos;
    await saveFoundTodos(recordingId, todos, transaction);
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
    const { kind: foundKind, title: proposed, otherTitles, ...filing } = result.proposals;
    const titles = [recording.appointment?.title, result.tags?.title, proposed, ...otherTitles];
    const [title = null, ...others] = [...new Set(titles.flatMap((t) => (t ? [inWriting(t)] : [])))];
    const { folderId, tags, people, project } = filing;
    await recording.update(
      {
        state: 'ready',
        problem: result.problem ?? null,
        durationMs: result.durationMs,
        video: recording.video ?? (result.tags?.hasVideo ? videoInSound(recording) : null),
        place: takesPlace ? (result.tags?.place ?? recording.place) : recording.place,
        ...(recording.source === 'import' && result.tags?.createdAt
          ? { startedAt: localText(new Date(result.tags.createdAt)) }
          : {}),
        peaks: result.peaks,
        ...(isTextKept ? {} : { voices }),
        suggestion: { title, otherTitles: others, folderId, tags, people, project },
        ...{ model: result.model, draft: null, foundKind },
        language: 'en',
        playbackFile: result.hasPlaybackCopy
          ? sounds.playbackPlan(recording.soundFile, result.seamsMs?.length)!.fileName
          : null,
      },
      { transaction },
    );
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
      text: isClosed ? text : `${text} (closing phrase missing: this aside ends at the pause)`,
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
          ...{ text: `Added later: ${sound.fileName}, ${dayInWords(sound.startedAt.slice(0, 16))}` },
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
