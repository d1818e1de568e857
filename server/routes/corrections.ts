import type { Version } from '@immeld/core/contract/corrections';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import { Recording } from '../models/recording';
import { TranscriptVersion } from '../models/transcriptVersion';
import type { SoundStore } from '../storage/soundStore';
import { changeParagraphs, correct, rewrite, restoreVersion } from '../transcript/corrections';
import { followSpeaker } from '../todos/saveFoundTodos';
import { assignSpeaker } from '../transcript/speakers';
import { recordingView } from '../views/recordingView';
import { serve } from './serve';

const view = ({ id, kind, createdAt, passages }: TranscriptVersion): Version => ({
  ...{ id, kind, keptAt: createdAt.toISOString() },
  words: passages.reduce((sum, p) => sum + p.words.length, 0),
});

/** Corrections of the text by hand, who says it, and its versions. */
export function correctionRoutes(sounds: SoundStore): Router {
  const router = Router();
  const find = async (id: string): Promise<Recording> => {
    const recording = await Recording.findByPk(id);
    if (!recording) throw new Problem('not-found', 'This recording no longer exists.');
    return recording;
  };
  const findVersion = async (recordingId: string, id: string): Promise<TranscriptVersion> => {
    const version = await TranscriptVersion.findOne({ where: { id, recordingId } });
    if (!version) throw new Problem('not-found', 'This version no longer exists.');
    return version;
  };

  serve(router, ENDPOINTS.correctPassage, async ({ params, body }) =>
    correct(await find(params.id), params.passageId, body),
  );
  serve(router, ENDPOINTS.rewritePassages, async ({ params, body }) => rewrite(await find(params.id), body));
  serve(router, ENDPOINTS.changeSpeaker, async ({ params, body }) => {
    const recording = await find(params.id);
    const changed = await assignSpeaker(recording, body);
    await followSpeaker(recording, body);
    return { recording: (await recordingView(recording.id, sounds))!, changed };
  });
  serve(router, ENDPOINTS.changeParagraphs, async ({ params, body }) => {
    const recording = await find(params.id);
    const before = await changeParagraphs(recording, body);
    return { recording: (await recordingView(recording.id, sounds))!, before };
  });
  serve(router, ENDPOINTS.listVersions, async ({ params }) => {
    const { id: recordingId } = await find(params.id);
    const versions = await TranscriptVersion.findAll({ where: { recordingId }, order: [['createdAt', 'DESC']] });
    return { items: versions.map(view) };
  });
  serve(router, ENDPOINTS.getVersion, async ({ params }) => {
    const version = await findVersion((await find(params.id)).id, params.versionId);
    return { ...view(version), passages: version.passages };
  });
  serve(router, ENDPOINTS.restoreVersion, async ({ params }) => {
    const recording = await find(params.id);
    await restoreVersion(recording, await findVersion(recording.id, params.versionId));
    return (await recordingView(recording.id, sounds))!;
  });
  return router;
}
