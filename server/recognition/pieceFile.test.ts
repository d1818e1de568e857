import fs from 'node:fs';
import path from 'node:path';
import { temporaryFolder } from '../testing/testServer';
import { PieceFile } from './pieceFile';

const folder = temporaryFolder();
const file = path.join(folder, 'job.jsonl');
const said = (text: string) => ({ words: [{ text, startMs: 0, endMs: 300, confidence: 0.9 }], isDoubtful: false });
const FIRST = { start: 0, end: 90 };
const SECOND = { start: 100, end: 210 };

beforeEach(() => fs.rmSync(file, { force: true }));
afterAll(() => fs.rmSync(folder, { recursive: true }));

it('gives back what was recognised, to whoever makes it in the same way', () => {
  const before = new PieceFile(file, { model: 'usual' });
  expect(before.find(FIRST)).toBeUndefined();
  before.add(FIRST, said('limes'));
  before.add(SECOND, said('kübler\n'));
  const after = new PieceFile(file, { model: 'usual' });
  expect([after.size, after.find(FIRST), after.find(SECOND)]).toEqual([2, said('limes'), said('kübler\n')]);
  expect(after.find({ start: 0, end: 91 })).toBeUndefined();
});

it('throws away what was made by another pack or with other names', () => {
  new PieceFile(file, { model: 'usual' }).add(FIRST, said('limes'));
  expect(new PieceFile(file, { model: 'quick' }).size).toBe(0);
  expect(new PieceFile(file, { model: 'usual' }).size).toBe(0);
});

it('goes on after a line that was broken off', () => {
  new PieceFile(file, 1).add(FIRST, said('limes'));
  fs.appendFileSync(file, '["100-210",{"wor');
  const second = new PieceFile(file, 1);
  expect(second.size).toBe(1);
  second.add(SECOND, said('water'));
  expect(new PieceFile(file, 1).find(SECOND)).toEqual(said('water'));
});

it('is read by its owner only', () => {
  new PieceFile(file, 1);
  expect(fs.statSync(file).mode & 0o077).toBe(0);
});

it('goes on without keeping anything where nothing can be written', () => {
  const nowhere = new PieceFile(path.join(folder, 'no such folder', 'job.jsonl'), 1);
  nowhere.add(FIRST, said('limes'));
  expect([nowhere.size, nowhere.find(FIRST)]).toEqual([0, undefined]);
});
