import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import {
  TINTS,
  type Folder as FolderAnswer,
  type Named,
  type NamedChange,
  type Tint,
} from '@immeld/core/contract/shelves';
import { isSameName } from '@immeld/core/filing/sameName';
import { Router } from 'express';
import { type ModelStatic, Op, QueryTypes, type Sequelize, type Transaction, type WhereOptions } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import {
  changePerson,
  changeProject,
  checkParent,
  isBinned,
  neighboursOf,
  notBinned,
  putInOrder,
  removeTag,
  renameTag,
  findOrCreateTag,
} from '../filing/shelving';
import { type ChangeSet, recordChanges } from '../history/changeSets';
import { Folder } from '../models/folder';
import { NoteRow } from '../models/note';
import { Person } from '../models/person';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import { serve } from './serve';

const missing = (what: string) => new Problem('not-found', `This ${what} no longer exists.`);

const SHOWN = 'binned_at IS NULL AND archived_at IS NULL';

export function shelfRoutes(database: Sequelize): Router {
  const router = Router();

  serve(router, ENDPOINTS.getShelves, async () => {
    const count = <T extends object>(sql: string) =>
      database.query<T>(sql, { type: QueryTypes.SELECT, replacements: { account: accountId() } });
    const countsOf = (table: string, column: string) =>
      count<{ id: string; n: number }>(
        `SELECT l.${column} AS id, COUNT(*) AS n FROM ${table} l JOIN recordings r ON r.id = l.recording_id
         WHERE r.account_id = :account AND r.${SHOWN.replace(' AND ', ' AND r.')} GROUP BY 1`,
      );
    const [folders, perFolder, tags, projects, people, perProject, perPerson] = await Promise.all([
      Folder.findAll({ where: notBinned, order: ['position', 'name'] }),
      count<{ id: string; n: number }>(
        `SELECT folder_id AS id, COUNT(*) AS n FROM (
           SELECT folder_id FROM recordings WHERE account_id = :account AND ${SHOWN} AND filed_at IS NOT NULL
           UNION ALL SELECT folder_id FROM notes WHERE account_id = :account AND ${SHOWN})
         WHERE folder_id IS NOT NULL GROUP BY 1`,
      ),
      count<{ name: string; isPinned: number; itemCount: number }>(
        `SELECT t.name AS name, t.is_pinned AS isPinned,
           (SELECT COUNT(*) FROM recording_tags l JOIN recordings r ON r.id = l.recording_id WHERE l.tag_id = t.id AND r.binned_at IS NULL) +
           (SELECT COUNT(*) FROM note_tags l JOIN notes n ON n.id = l.note_id WHERE l.tag_id = t.id AND n.binned_at IS NULL) AS itemCount
         FROM tags t WHERE t.account_id = :account ORDER BY t.is_pinned DESC, t.name COLLATE NOCASE`,
      ),
      Project.findAll({ order: [['name', 'ASC']] }),
      Person.findAll({ order: [['name', 'ASC']] }),
      count<{ id: string; n: number }>(
        `SELECT project_id AS id, COUNT(*) AS n FROM recordings WHERE account_id = :account AND ${SHOWN} AND project_id IS NOT NULL GROUP BY 1`,
      ),
      countsOf('recording_people', 'person_id'),
    ]);
    const shown = { binnedAt: null, archivedAt: null };
    const archived = { ...notBinned, archivedAt: { [Op.ne]: null } };
    const both = async (where: WhereOptions & object): Promise<number> =>
      (await Recording.count({ where: where as WhereOptions<Recording> })) +
      (await NoteRow.count({ where: where as WhereOptions<NoteRow> }));
    const counted = (rows: { id: string; n: number }[], id: string) => rows.find((r) => r.id === id)?.n ?? 0;
    const named = (rows: readonly (Person | Project)[], counts: { id: string; n: number }[]): Named[] =>
      rows.map(({ id, name, otherNames }) => ({ id, name, otherNames, itemCount: counted(counts, id) }));
    return {
      folders: folders.map((f) => folderView(f, counted(perFolder, f.id))),
      tags: tags.map((t) => ({ ...t, isPinned: Boolean(t.isPinned) })).filter((t) => t.itemCount > 0 || t.isPinned),
      projects: named(projects, perProject),
      people: named(people, perPerson),
      trayCount: await Recording.count({ where: { ...shown, filedAt: null } }),
      favouriteCount: await both({ ...shown, isFavourite: true }),
      archiveCount: await both(archived),
      binCount: await both(isBinned),
      openTodoCount: await TodoRow.count({ where: { state: 'ink', doneAt: null, binnedAt: null } }),
    };
  });

  serve(router, ENDPOINTS.addFolder, async ({ body }) => {
    await checkParent(null, body.parentId);
    const parentId = body.parentId ?? null;
    const tint: Tint = body.tint ?? TINTS[(await Folder.count()) % TINTS.length]!;
    const position = (await neighboursOf(parentId)).length;
    return folderView(await Folder.create({ name: body.name, tint, parentId, position, binnedAt: null }), 0);
  });

  serve(router, ENDPOINTS.changeFolder, async ({ params, body }) => {
    const row = await Folder.findByPk(params.id);
    if (!row) throw missing('folder');
    if (body.parentId !== undefined) await checkParent(params.id, body.parentId);
    const { isBinned: bins, position, ...rest } = body;
    const before = row.name;
    return recordChanges(database, async (deed) => {
      await deed.change(row, { ...rest, ...(bins === undefined ? {} : { binnedAt: bins ? new Date() : null }) });
      if (position !== undefined) await putInOrder(row, position, deed);
      const what =
        bins !== undefined
          ? bins
            ? `“${before}” is removed. Its recordings stay under Everything.`
            : `“${before}” is restored.`
          : rest.name !== undefined && rest.name !== before
            ? `“${before}” is now called “${row.name}”.`
            : rest.parentId !== undefined || position !== undefined
              ? `“${before}” was moved.`
              : `“${before}” was changed.`;
      return { text: what, count: 1 };
    });
  });

  serve(router, ENDPOINTS.changeTag, ({ params, body }) =>
    recordChanges(database, async (deed) => {
      const tag = await findOrCreateTag(params.name, deed.transaction);
      if (!tag) throw missing('tag');
      const before = tag.name;
      if (body.isRemoved) {
        await removeTag(tag, deed);
        return { text: `The tag ${before} was removed.`, count: 1 };
      }
      if (body.isPinned !== undefined) await deed.change(tag, { isPinned: body.isPinned });
      if (!body.name)
        return { text: `The tag ${before} is ${body.isPinned ? 'pinned' : 'no longer pinned'}.`, count: 1 };
      const isJoined = await renameTag(tag, body.name, deed);
      return {
        text: isJoined
          ? `The tags ${before} and ${body.name} are merged.`
          : `The tag ${before} is now called ${body.name}.`,
        count: 1,
      };
    }),
  );

  const addNamed =
    (model: ModelStatic<Person> | ModelStatic<Project>) =>
    async ({ body }: { body: { name: string; otherNames?: string[] | undefined } }): Promise<Named> => {
      const rows = model as ModelStatic<Person>;
      const known = (await rows.findAll()).find((r) => isSameName(r.name, body.name));
      const row = known ?? (await rows.create({ name: body.name, otherNames: body.otherNames ?? [] }));
      return { id: row.id, name: row.name, otherNames: row.otherNames, itemCount: 0 };
    };
  const changeNamed =
    <M extends Person | Project>(
      find: (id: string, transaction: Transaction) => Promise<M | null>,
      what: string,
      change: (row: M, body: NamedChange, deed: ChangeSet) => Promise<string>,
    ) =>
    ({ params, body }: { params: { id: string }; body: NamedChange }) =>
      recordChanges(database, async (deed) => {
        const row = await find(params.id, deed.transaction);
        if (!row) throw missing(what);
        return { text: `${await change(row, body, deed)}.`, count: 1 };
      });
  serve(router, ENDPOINTS.addProject, addNamed(Project));
  serve(
    router,
    ENDPOINTS.changeProject,
    changeNamed((id, transaction) => Project.findByPk(id, { transaction }), 'project', changeProject),
  );
  serve(router, ENDPOINTS.addPerson, addNamed(Person));
  serve(
    router,
    ENDPOINTS.changePerson,
    changeNamed((id, transaction) => Person.findByPk(id, { transaction }), 'person', changePerson),
  );

  return router;
}

const folderView = ({ id, name, tint, parentId, position }: Folder, itemCount: number): FolderAnswer => ({
  ...{ id, name, tint, parentId, position, itemCount },
});
