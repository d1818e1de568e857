/**
 * Prepares the model files: takes the published ones from their packages, cuts the decoder for fast decoding and
 * lays them under models/ with their licence texts. Runs in about a second; skipped when nothing changed.
 */
import fs from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import llama from 'llama-tokenizer-js';
import type { Alignment } from '../core/speech/decoder';
import { prepareDecoder } from '../core/speech/decoderGraph';
import { PACKS, type Quality } from '../core/speech/packs';
import { withSignedWeights } from '../core/speech/signedWeights';
import { projectRoot } from '../server/projectRoot';
import { MANIFEST_FILE, MODEL_FILES, RUNTIME_FILE, modelFolder } from '../server/recognition/modelFiles';

const root = projectRoot();
const from = (...parts: string[]) => path.join(root, 'node_modules', ...parts);
const smallPackage = from('@usefulsensors', 'moonshine-js');
/** An earlier release that still carries the larger English model. */
const largePackage = from('moonshine-js-base');

/**
 * Whether this processor adds products of unsigned and signed bytes exactly. Older ones may cut sums off at 16 bits, so they keep
 * unsigned weights.
 */
function multipliesSigned(): boolean {
  if (process.arch !== 'x64') return true;
  try {
    return /\b(?:avx512_vnni|avx_vnni)\b/.test(fs.readFileSync('/proc/cpuinfo', 'utf8'));
  } catch {
    return false;
  }
}
const forProcessor = multipliesSigned() ? withSignedWeights : (graph: Uint8Array) => graph;

/** Lays a file into a pack whole or not at all. */
const lay = (folder: string, name: string, content: Uint8Array | string) => {
  fs.mkdirSync(folder, { recursive: true });
  fs.writeFileSync(path.join(folder, `${name}.part`), content);
  fs.renameSync(path.join(folder, `${name}.part`), path.join(folder, name));
};
/** Browsers fetch it packed: the packing is done once, here. */
const layForDevices = (folder: string, name: string, content: Uint8Array | string) => {
  lay(folder, name, content);
  lay(folder, `${name}.gz`, gzipSync(content, { level: 9 }));
};

/** What a pack is, for people and for programs. */
type Manifest = {
  name: string;
  title: string;
  language: string;
  goodFor: string;
  parameters: number;
  alignment?: Alignment;
};

function layPack(quality: Quality, source: string, { put, manifest }: { put: typeof lay; manifest: Manifest }): void {
  const folder = modelFolder(quality);
  const decoder = prepareDecoder(fs.readFileSync(path.join(source, 'decoder_model_merged.onnx')));
  put(folder, MODEL_FILES.encoder, forProcessor(fs.readFileSync(path.join(source, 'encoder_model.onnx'))));
  put(folder, MODEL_FILES.step, forProcessor(decoder.step));
  put(folder, MODEL_FILES.crossKeyValues, forProcessor(decoder.crossKeyValues));
  put(folder, MODEL_FILES.detector, fs.readFileSync(from('@ricky0123', 'vad-web', 'dist', 'silero_vad_v6.onnx')));
  put(folder, MODEL_FILES.vocabulary, JSON.stringify((llama as unknown as { vocabById: string[] }).vocabById));
  const files = Object.values(MODEL_FILES);
  const sizeBytes = files.reduce((sum, name) => sum + fs.statSync(path.join(folder, name)).size, 0);
  const made = { ...manifest, licence: 'MIT', makers: 'Useful Sensors, Inc.; prepared by Immeld', sizeBytes, files };
  lay(folder, MANIFEST_FILE, `${JSON.stringify(made, null, 2)}\n`);
  lay(folder, 'LICENCE.txt', licenceText());
}

const MODEL = ['dist', 'model'];
function licenceText(): string {
  const licence = fs.readFileSync(path.join(smallPackage, 'LICENSE'), 'utf8');
  // The package's file also holds the terms of another language's model, which we neither take nor ship.
  const english = licence
    .slice(0, licence.indexOf('SECTION 2 ---'))
    .replace(/^The Spanish[\s\S]*?SECTION 1/m, 'SECTION 1');
  const notices = fs.readFileSync(path.join(root, 'NOTICE.md'), 'utf8');
  return `${english.trim()}\n\n${'-'.repeat(78)}\n\n${notices}`;
}

layPack('quick', path.join(smallPackage, ...MODEL, 'tiny', 'quantized'), {
  put: layForDevices,
  manifest: {
    ...{ name: PACKS.quick, title: 'English, live words', language: 'en', parameters: 27_000_000 },
    goodFor: 'live words on the device, quick results',
  },
});
layForDevices(
  modelFolder('quick'),
  RUNTIME_FILE,
  fs.readFileSync(from('onnxruntime-web', 'dist', 'ort-wasm-simd-threaded.wasm')),
);
layPack('usual', path.join(largePackage, ...MODEL, 'base', 'quantized'), {
  put: lay,
  manifest: {
    ...{ name: PACKS.usual, title: 'English, better words', language: 'en', parameters: 61_000_000 },
    goodFor: 'the server: fewer mistakes, above all in noise',
    // Chosen on 200 s of the lecture; the rest of the demo has them tested (docs/benchmarks.md).
    alignment: {
      heads: [
        [5, 4],
        [4, 2],
        [5, 1],
        [6, 4],
        [5, 5],
        [6, 1],
      ],
      offsetSeconds: -0.02,
    },
  },
});
