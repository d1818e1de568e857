import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import { Recording } from '../models/recording';
import { recordingWithAdded, recordingWithVideo } from '../storage/importUpload';
import { appendDeviceWords } from '../transcript/drafts';
import { serve } from './serve';

/** What a device asks before it lets go of its own copy of a sound. */
export function captureRoutes(): Router {
  const router = Router();
  serve(router, ENDPOINTS.getCapture, async ({ params }) => {
    const recording = await Recording.findOne({ where: { captureId: params.id } });
    if (!recording) {
      const added = await recordingWithAdded(params.id);
      const sound = added?.moreSounds.find((s) => s.captureId === params.id);
      const withVideo = await recordingWithVideo(params.id);
      if (withVideo?.video) {
        return { recordingId: withVideo.id, sha256: withVideo.video.sha256, sizeBytes: withVideo.video.sizeBytes };
      }
      if (sound) return { recordingId: added!.id, sha256: sound.sha256, sizeBytes: sound.sizeBytes };
    }
    if (!recording) throw new Problem('not-found', 'No part of this recording has arrived yet.');
    return { recordingId: recording.id, sha256: recording.sha256, sizeBytes: recording.sizeBytes };
  });
  serve(router, ENDPOINTS.sendDeviceWords, async ({ params, body: { words } }) => {
    const recording = await Recording.findOne({ where: { captureId: params.id } });
    if (!recording) throw new Problem('not-found', 'No part of this recording has arrived yet.');
    return { isTaken: await appendDeviceWords(recording, words) };
  });
  return router;
}
