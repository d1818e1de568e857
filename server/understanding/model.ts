import { type UnderstandingModel, unpackModel } from '@immeld/core/understanding/model';
import fs from 'node:fs';
import path from 'node:path';
import { projectRoot } from '../projectRoot';

let loaded: UnderstandingModel | undefined;

/** What was learned about talk, read when it is first needed. Throws when the file that ships with Immeld is missing. */
export function understandingModel(): UnderstandingModel {
  loaded ??= unpackModel(
    new Uint8Array(fs.readFileSync(path.join(projectRoot(), 'data', 'understanding', 'weights.bin'))),
  );
  return loaded;
}
