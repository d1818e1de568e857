import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { Person } from '../models/person';
import { Project } from '../models/project';
import { sharedSettings } from '../models/settings';
import { Tag } from '../models/tag';
import { longTasks } from '../tasks/taskPool';
import { serve } from './serve';

/** Words of the person's own that no dictionary has: names, terms, people, projects and tags. */
async function knownWords(): Promise<string[]> {
  const { names, ownName } = await sharedSettings();
  const rows = [...(await Person.findAll()), ...(await Project.findAll()), ...(await Tag.findAll())];
  const all = [ownName, ...names.map((n) => n.text), ...rows.map((r) => r.name)].join(' ');
  return [...new Set(all.toLowerCase().match(/[\p{L}']+/gu) ?? [])];
}

/** Texts worked over by built-in rules. */
export function reworkRoutes(): Router {
  const router = Router();
  serve(router, ENDPOINTS.rework, async ({ body: { blocks, way } }) => {
    const known = way === 'proofread' ? await knownWords() : [];
    return { pieces: await longTasks.run({ kind: 'rework', blocks, way, known }) };
  });
  return router;
}
