import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Speller } from '@immeld/core/rework/proofread';
import { rework } from '@immeld/core/rework/rework';
import { Router } from 'express';
import fs from 'node:fs';
import path from 'node:path';
import nspell from 'nspell';
import { Person } from '../models/person';
import { Project } from '../models/project';
import { sharedSettings } from '../models/settings';
import { Tag } from '../models/tag';
import { projectRoot } from '../projectRoot';
import { serve } from './serve';

type Spelling = ReturnType<typeof nspell>;
let loaded: Spelling[] | null = null;

/** British and American spelling, read when they are first needed. */
function spellings(): Spelling[] {
  loaded ??= ['dictionary-en-gb', 'dictionary-en'].map((name) => {
    const folder = path.join(projectRoot(), 'node_modules', name);
    const read = (file: string) => fs.readFileSync(path.join(folder, file), 'utf8');
    return nspell(read('index.aff'), read('index.dic'));
  });
  return loaded;
}

/** Words of the person's own that no dictionary has: names, terms, people, projects and tags. */
async function knownWords(): Promise<Set<string>> {
  const { names, ownName } = await sharedSettings();
  const rows = [...(await Person.findAll()), ...(await Project.findAll()), ...(await Tag.findAll())];
  const all = [ownName, ...names.map((n) => n.text), ...rows.map((r) => r.name)].join(' ');
  return new Set(all.toLowerCase().match(/[\p{L}']+/gu) ?? []);
}

/** Texts worked over by built-in rules. */
export function reworkRoutes(): Router {
  const router = Router();
  serve(router, ENDPOINTS.rework, async ({ body: { blocks, way } }) => {
    const isRead = way === 'proofread';
    const speller = new Speller(isRead ? spellings() : [], isRead ? await knownWords() : new Set());
    return { pieces: await rework(blocks, way, speller) };
  });
  return router;
}
