/**
 * Prepares the model files: takes the published ones from their packages, cuts the decoder for fast decoding and
 * lays them under models/ with their licence texts. Runs in about a second; skipped when nothing changed.
 */
import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import llama from 'llama-tokenizer-js';
import { prepareDecoder } from '../core/speech/decoderGraph';
import { projectRoot } from '../server/projectRoot';
import { MODEL_FILES, RUNTIME_FILE, modelFolder } from '../server/recognition/modelFiles';

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
/** Browsers fetch it packed: the packing is done once, here. */
const layForDevices = (name: string, content: Uint8Array | string) => {
  lay(name, content);
  lay(`${name}.gz`, gzipSync(content, { level: 9 }));
};

const decoder = prepareDecoder(fs.readFileSync(path.join(source, 'decoder_model_merged.onnx')));
layForDevices(MODEL_FILES.encoder, fs.readFileSync(path.join(source, 'encoder_model.onnx')));
layForDevices(MODEL_FILES.step, decoder.step);
layForDevices(MODEL_FILES.crossKeyValues, decoder.crossKeyValues);
layForDevices(MODEL_FILES.detector, fs.readFileSync(from('@ricky0123', 'vad-web', 'dist', 'silero_vad_v6.onnx')));
layForDevices(MODEL_FILES.vocabulary, JSON.stringify((llama as unknown as { vocabById: string[] }).vocabById));
layForDevices(RUNTIME_FILE, fs.readFileSync(from('onnxruntime-web', 'dist', 'ort-wasm-simd-threaded.wasm')));

const licence = fs.readFileSync(path.join(recogniserPackage, 'LICENSE'), 'utf8');
// The package's file also holds the terms of another language's model, which we neither take nor ship.
const english = licence
  .slice(0, licence.indexOf('SECTION 2 ---'))
  .replace(/^The Spanish[\s\S]*?SECTION 1/m, 'SECTION 1');
const notices = fs.readFileSync(path.join(root, 'NOTICE.md'), 'utf8');
lay('LICENCE.txt', `${english.trim()}\n\n${'-'.repeat(78)}\n\n${notices}`);
