import type { Pack } from '@immeld/core/contract/captures';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import express, { type Express, Router } from 'express';
import fs from 'node:fs';
import path from 'node:path';
import { MODEL_FILES, MODEL_NAME, RUNTIME_FILE, modelFolder } from '../recognition/modelFiles';
import { sha256Of } from '../storage/soundStore';
import { sendStoredFile } from '../storage/sendStoredFile';
import { serve } from './serve';

const PACKS_PATH = '/packs';

async function describePack(folder: string): Promise<Pack> {
  const files = await Promise.all(
    [...Object.values(MODEL_FILES), RUNTIME_FILE].map(async (name) => {
      const file = path.join(folder, name);
      const [sha256, { size }, sent] = await Promise.all([
        sha256Of(file),
        fs.promises.stat(file),
        fs.promises.stat(`${file}.gz`),
      ]);
      return { address: `${PACKS_PATH}/${MODEL_NAME}/${name}`, sizeBytes: size, sentBytes: sent.size, sha256 };
    }),
  );
  return { name: MODEL_NAME, title: 'English, live words', language: 'en', licence: 'MIT', files };
}

/** The packs that a device may fetch, and their files. */
export function packRoutes(): Router {
  const router = Router();
  let known: Promise<Pack> | null = null;
  serve(router, ENDPOINTS.listPacks, async () => {
    known ??= describePack(modelFolder());
    try {
      return { items: [await known] };
    } catch (error) {
      known = null;
      throw error;
    }
  });
  return router;
}

/** Serves the packs' files, as gzip to browsers that take it: they were packed when they were prepared. */
export function servePacks(application: Express): void {
  const address = `${PACKS_PATH}/${MODEL_NAME}`;
  application.use(address, (request, response, next) => {
    const file = path.join(modelFolder(), `${path.basename(request.path)}.gz`);
    if (!/\bgzip\b/.test(request.headers['accept-encoding'] ?? '') || !fs.existsSync(file)) return next();
    response.setHeader('Content-Encoding', 'gzip');
    response.setHeader('Vary', 'Accept-Encoding');
    response.type(path.extname(request.path) === '.wasm' ? 'application/wasm' : 'application/octet-stream');
    void sendStoredFile(response, file, { cacheControl: false }).catch(next);
  });
  application.use(address, express.static(modelFolder(), { index: false }));
}
