import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

/** Progress goes to the error stream: what a command answers stays clean. */
export const say = (text) => process.stderr.write(`${text}\n`);
