/**
 * Learns to understand talk from data/talk and writes data/understanding/weights.bin. The same data give the same file.
 * `--without HAND` leaves one hand out, `--to FILE` writes elsewhere.
 */
import fs from 'node:fs';
import path from 'node:path';
import { readTodoExamples } from '../core/language/evaluation/todoExamples';
import { TODO_MEMOS_DEV_SET } from '../core/language/evaluation/todoMemosDevSet';
import { learnAll } from '../core/understanding/learning/learn';
import { lessonOf } from '../core/understanding/learning/learnTodos';
import { readTalkFile } from '../core/understanding/learning/talk';
import { workingSetLessons } from '../core/understanding/learning/workingSet';
import { packModel } from '../core/understanding/model';

const root = path.resolve(__dirname, '..');
const option = (name: string): string | undefined => process.argv[process.argv.indexOf(name) + 1 || Infinity];
const started = Date.now();
const lessons = ['A', 'B', 'C', 'D', 'E']
  .filter((hand) => hand !== option('--without'))
  .flatMap((hand) => readTalkFile(fs.readFileSync(path.join(root, 'data', 'talk', `${hand}.jsonl`), 'utf8')))
  .filter((item) => item.kind !== 'letter')
  .map(lessonOf);
const file = option('--to') ?? path.join(root, 'data', 'understanding', 'weights.bin');
fs.writeFileSync(file, packModel(learnAll([...lessons, ...workingSetLessons(readTodoExamples(TODO_MEMOS_DEV_SET))])));
console.log(`${file}: ${fs.statSync(file).size} bytes, ${Math.round((Date.now() - started) / 1000)} s`);
