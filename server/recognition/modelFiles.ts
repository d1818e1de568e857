import fs from 'node:fs';
import path from 'node:path';
import type { Alignment } from '@immeld/core/speech/decoder';
import { PACKS, QUALITIES, type Quality } from '@immeld/core/speech/packs';
import { Tokenizer } from '@immeld/core/speech/tokenizer';
import type { TranscriberModels } from '@immeld/core/speech/transcriber';
import { projectRoot } from '../projectRoot';
import { nodeRuntime } from './nodeRuntime';

/** The pack that devices fetch. */
export const MODEL_NAME = PACKS.quick;

export const MODEL_FILES = {
  encoder: 'encoder.onnx',
  crossKeyValues: 'cross-key-values.onnx',
  step: 'step.onnx',
  detector: 'speech-detector.onnx',
  vocabulary: 'vocabulary.json',
} as const;

/** Tells what a pack is: name, language, size, licence, makers, files, what it is good for. */
export const MANIFEST_FILE = 'manifest.json';

/** What runs the model in a browser; part of the pack that a device fetches. */
export const RUNTIME_FILE = 'runtime.wasm';

/** Where the files of a pack lie; `IMMELD_MODELS` names the folder of all packs. */
export const modelFolder = (quality: Quality = 'quick'): string =>
  path.join(process.env['IMMELD_MODELS'] || path.join(projectRoot(), 'models'), PACKS[quality]);

/** How well the server listens where nobody says otherwise: `IMMELD_QUALITY`, else the better pack. */
export function usualQuality(): Quality {
  const asked = process.env['IMMELD_QUALITY'];
  return QUALITIES.find((q) => q === asked) ?? 'usual';
}

/** Loads the prepared model files. Rejects with a sentence that names the missing file. */
export async function loadModels(quality: Quality = usualQuality()): Promise<TranscriberModels> {
  const folder = modelFolder(quality);
  const read = (name: string): Uint8Array => {
    const file = path.join(folder, name);
    if (!fs.existsSync(file)) throw new Error(`The model file ${name} is missing. Run "npm run build" to prepare it.`);
    return fs.readFileSync(file);
  };
  const [encoder, crossKeyValues, step, detector] = await Promise.all(
    [MODEL_FILES.encoder, MODEL_FILES.crossKeyValues, MODEL_FILES.step, MODEL_FILES.detector].map((name) =>
      nodeRuntime.open(read(name)),
    ),
  );
  const manifest = JSON.parse(Buffer.from(read(MANIFEST_FILE)).toString('utf8')) as { alignment?: Alignment };
  const pieces = JSON.parse(Buffer.from(read(MODEL_FILES.vocabulary)).toString('utf8')) as string[];
  return {
    runtime: nodeRuntime,
    encoder: encoder!,
    crossKeyValues: crossKeyValues!,
    step: step!,
    detector: detector!,
    tokenizer: new Tokenizer(pieces),
    ...(manifest.alignment ? { alignment: manifest.alignment } : {}),
  };
}
