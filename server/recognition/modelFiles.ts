import fs from 'node:fs';
import path from 'node:path';
import { Tokenizer } from '@immeld/core/speech/tokenizer';
import type { TranscriberModels } from '@immeld/core/speech/transcriber';
import { projectRoot } from '../projectRoot';
import { nodeRuntime } from './nodeRuntime';

/** Name of the model as it stands with every transcript. */
export const MODEL_NAME = 'english-tiny-1';

export const MODEL_FILES = {
  encoder: 'encoder.onnx',
  crossKeyValues: 'cross-key-values.onnx',
  step: 'step.onnx',
  detector: 'speech-detector.onnx',
  vocabulary: 'vocabulary.json',
} as const;

/** What runs the model in a browser; part of the pack that a device fetches. */
export const RUNTIME_FILE = 'runtime.wasm';

export const modelFolder = (): string => process.env['IMMELD_MODELS'] ?? path.join(projectRoot(), 'models', MODEL_NAME);

/** Loads the prepared model files. Rejects with a sentence that names the missing file. */
export async function loadModels(folder = modelFolder()): Promise<TranscriberModels> {
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
  const pieces = JSON.parse(Buffer.from(read(MODEL_FILES.vocabulary)).toString('utf8')) as string[];
  return {
    runtime: nodeRuntime,
    encoder: encoder!,
    crossKeyValues: crossKeyValues!,
    step: step!,
    detector: detector!,
    tokenizer: new Tokenizer(pieces),
  };
}
