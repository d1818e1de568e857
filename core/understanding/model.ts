import type { Linear } from './linear';
import type { TodoModel } from './todoJudge';

/** All that was learned; data/understanding/CARD.md tells from what, how, and how well it does. */
export type UnderstandingModel = TodoModel & { who: Linear; decisions: Linear; questions: Linear };

const PARTS = ['heads', 'chunks', 'words', 'ranker', 'who', 'decisions', 'questions'] as const;
const VERSION = 1;

type Header = {
  version: number;
  transitions: number[][];
  parts: { name: string; classes: number; bits: number; scale: number }[];
};

/** One file: length of the header (32 bits, little-endian), header as JSON, then the weights of each part, a byte each. */
export function packModel(model: UnderstandingModel): Uint8Array {
  const header: Header = {
    version: VERSION,
    transitions: model.transitions.map((row) => [...row]),
    parts: PARTS.map((name) => ({
      name,
      classes: model[name].classes,
      bits: model[name].bits,
      scale: model[name].scale,
    })),
  };
  const json = new TextEncoder().encode(JSON.stringify(header));
  const bytes = new Uint8Array(4 + json.length + PARTS.reduce((sum, name) => sum + model[name].weights.length, 0));
  new DataView(bytes.buffer).setUint32(0, json.length, true);
  bytes.set(json, 4);
  let at = 4 + json.length;
  for (const name of PARTS) {
    const { weights } = model[name];
    if (!(weights instanceof Int8Array)) throw new TypeError(`The weights of “${name}” are not bytes yet.`);
    bytes.set(new Uint8Array(weights.buffer, weights.byteOffset, weights.length), at);
    at += weights.length;
  }
  return bytes;
}

/** @throws RangeError for a file of another version, or one that is cut off */
export function unpackModel(bytes: Uint8Array): UnderstandingModel {
  const length = bytes.length < 4 ? Infinity : new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true);
  if (4 + length > bytes.length) throw new RangeError('The file of what was learned is cut off.');
  const header = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + length))) as Header;
  if (header.version !== VERSION) throw new RangeError('The file of what was learned has another version.');
  let at = 4 + length;
  const parts = header.parts.map(({ name, classes, bits, scale }) => {
    const size = classes << bits;
    if (at + size > bytes.length) throw new RangeError('The file of what was learned is cut off.');
    const weights = new Int8Array(bytes.buffer, bytes.byteOffset + at, size);
    at += size;
    return [name, { classes, bits, scale, weights }] as const;
  });
  const known = Object.fromEntries(parts) as Record<(typeof PARTS)[number], Linear>;
  const missing = PARTS.find((name) => !(name in known));
  if (missing) throw new RangeError(`The file of what was learned lacks “${missing}”.`);
  return { ...known, transitions: header.transitions };
}
