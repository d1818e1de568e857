import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { TINTS, type Folder as FolderAnswer, type Tint } from '@immeld/core/contract/shelves';
import { Router } from 'express';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { Folder } from '../models/folder';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import { serve } from './serve';

async function folderView(row: Folder): Promise<FolderAnswer> {
  const { id, name, tint, parentId } = row;
  const recordingCount = await Recording.count({ where: { folderId: id, binnedAt: null, filedAt: { [Op.ne]: null } } });
  return { id, name, tint, parentId, recordingCount };
}

/** A folder inside itself could never be reached again. */
async function checkParent(id: string | null, parentId: string | null | undefined): Promise<void> {
  for (let at = parentId ?? null; at;) {
    if (at === id) throw new Problem('invalid-request', 'A folder cannot lie inside itself.');
    const parent: Folder | null = await Folder.findByPk(at);
    if (!parent) throw new Problem('invalid-request', 'The folder around it does not exist any more.');
    at = parent.parentId;
  }
}

export function shelfRoutes(database: Sequelize): Router {
  const router = Router();

  serve(router, ENDPOINTS.getShelves, async () => {
    const count = <T extends object>(sql: string) =>
      database.query<T>(sql, { type: QueryTypes.SELECT, replacements: { account: accountId() } });
    const [folders, perFolder, tags, projects, trayCount, binCount, openTodoCount] = await Promise.all([
      Folder.findAll({ where: { binnedAt: null }, order: [['name', 'ASC']] }),
      count<{ id: string; n: number }>(
        `SELECT folder_id AS id, COUNT(*) AS n FROM recordings
         WHERE account_id = :account AND binned_at IS NULL AND filed_at IS NOT NULL AND folder_id IS NOT NULL GROUP BY folder_id`,
      ),
      count<{ name: string; recordingCount: number }>(
        `SELECT t.name AS name, COUNT(*) AS recordingCount FROM tags t
         JOIN recording_tags rt ON rt.tag_id = t.id JOIN recordings r ON r.id = rt.recording_id
         WHERE t.account_id = :account AND r.binned_at IS NULL GROUP BY t.id ORDER BY t.name COLLATE NOCASE`,
      ),
      Project.findAll({ order: [['name', 'ASC']] }),
      Recording.count({ where: { filedAt: null, binnedAt: null } }),
      Recording.count({ where: { binnedAt: { [Op.ne]: null } } }),
      TodoRow.count({ where: { state: 'ink', doneAt: null, binnedAt: null } }),
    ]);
    const counts = new Map(perFolder.map(({ id, n }) => [id, n]));
    return {
      folders: folders.map(({ id, name, tint, parentId }) => ({
        ...{ id, name, tint, parentId },
        recordingCount: counts.get(id) ?? 0,
      })),
      tags,
      projects: projects.map((p) => p.name),
      ...{ trayCount, binCount, openTodoCount },
    };
  });

  serve(router, ENDPOINTS.addFolder, async ({ body }) => {
    await checkParent(null, body.parentId);
    const tint: Tint = body.tint ?? TINTS[(await Folder.count()) % TINTS.length]!;
    return folderView(await Folder.create({ name: body.name, tint, parentId: body.parentId ?? null, binnedAt: null }));
  });

  serve(router, ENDPOINTS.changeFolder, async ({ params, body }) => {
    const row = await Folder.findByPk(params.id);
    if (!row) throw new Problem('not-found', 'There is no such folder.');
    if (body.parentId !== undefined) await checkParent(params.id, body.parentId);
    const { isBinned, ...rest } = body;
    await row.update({ ...rest, ...(isBinned === undefined ? {} : { binnedAt: isBinned ? new Date() : null }) });
    return folderView(row);
  });

  return router;
}
