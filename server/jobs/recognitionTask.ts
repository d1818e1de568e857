import { namesFor } from '@immeld/core/speech/names/nameList';
import type { JobRow } from '../models/job';
import { Project } from '../models/project';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import type { SoundStore } from '../storage/soundStore';
import { draftedUpTo } from '../transcript/drafts';
import { asidesOf } from '../transcript/asides';
import { filingContextFor } from './filingContext';
import type { WorkerTask } from './workerMessages';

/** The project of a recording, by the person or as it was suggested before. */
const projectOf = async ({ projectId, suggestion }: Recording): Promise<string | null> =>
  (projectId ? (await Project.findByPk(projectId))?.name : suggestion.project) ?? null;

/** What a worker is asked for: the sounds of a recording, and all that is known in its account. */
export async function recognitionTask(row: JobRow, recording: Recording, sounds: SoundStore): Promise<WorkerTask> {
  const { names, quality } = await sharedSettings();
  return {
    jobId: row.id,
    pieceFile: sounds.piecePath(row.id),
    draftedMs: await draftedUpTo(recording),
    soundFile: sounds.pathOf(recording.soundFile),
    moreSoundFiles: recording.moreSounds.map((s) => sounds.pathOf(s.soundFile)),
    expectedMs: recording.moreSounds.length ? null : recording.durationMs,
    playback: sounds.playbackPlan(recording.soundFile, recording.moreSounds.length),
    filing: await filingContextFor(recording),
    asides: await asidesOf(recording),
    names: namesFor(names, await projectOf(recording)),
    cleaning: row.cleaning,
    quality: row.quality ?? quality,
  };
}
