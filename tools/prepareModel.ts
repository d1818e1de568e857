/**
 * Prepares the model files: takes the published ones from their packages, cuts the decoder for fast decoding and
 * lays them under models/ with their licence texts. Runs in about a second; skipped when nothing changed.
 */
import fs from 'node:fs';
import path from 'node:path';
import llama from 'llama-tokenizer-js';
import { prepareDecoder } from '../core/speech/decoderGraph';
import { projectRoot } from '../server/projectRoot';
import { MODEL_FILES, modelFolder } from '../server/recognition/modelFiles';

const root = projectRoot();
const from = (...parts: string[]) => path.join(root, 'node_modules', ...parts);
const recogniserPackage = from('@usefulsensors', 'moonshine-js');
const source = path.join(recogniserPackage, 'dist', 'model', 'tiny', 'quantized');
const target = modelFolder();
fs.mkdirSync(target, { recursive: true });

const lay = (name: string, content: Uint8Array | string) => {
  fs.writeFileSync(path.join(target, `${name}.part`), content);
  fs.renameSync(path.join(target, `${name}.part`), path.join(target, name));
};

const decoder = prepareDecoder(fs.readFileSync(path.join(source, 'decoder_model_merged.onnx')));
lay(MODEL_FILES.encoder, fs.readFileSync(path.join(source, 'encoder_model.onnx')));
lay(MODEL_FILES.step, decoder.step);
lay(MODEL_FILES.crossKeyValues, decoder.crossKeyValues);
lay(MODEL_FILES.detector, fs.readFileSync(from('@ricky0123', 'vad-web', 'dist', 'silero_vad_v6.onnx')));
lay(MODEL_FILES.vocabulary, JSON.stringify((llama as unknown as { vocabById: string[] }).vocabById));

const licence = fs.readFileSync(path.join(recogniserPackage, 'LICENSE'), 'utf8');
// The package's file also holds the terms of another language's model, which we neither take nor ship.
const english = licence
  .slice(0, licence.indexOf('SECTION 2 ---'))
  .replace(/^The Spanish[\s\S]*?SECTION 1/m, 'SECTION 1');
const notices = fs.readFileSync(path.join(root, 'NOTICE.md'), 'utf8');
lay('LICENCE.txt', `${english.trim()}\n\n${'-'.repeat(78)}\n\n${notices}`);
