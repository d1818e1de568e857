import type { NoteBody, NoteNode } from '@immeld/core/contract/notes';
import type { Transaction } from 'sequelize';
import type { NoteRow } from '../models/note';
import { TodoRow } from '../models/todo';

type Item = { id: string; text: string; isDone: boolean };
const LONGEST = 500;

/** The check boxes of a note that have an id: their own words, without those of boxes inside them. */
export function checkItemsOf(body: NoteBody | null): Map<string, Item> {
  const items = new Map<string, Item>();
  const wordsOf = (node: NoteNode): string =>
    node.type === 'taskList'
      ? ''
      : node.type === 'mention'
        ? String(node.attrs?.['label'] ?? '')
        : `${node.text ?? ''}${(node.content ?? []).map(wordsOf).join('')}`;
  const walk = (node: NoteNode): void => {
    const id = node.type === 'taskItem' ? node.attrs?.['todoId'] : null;
    if (typeof id === 'string') {
      const text = (node.content ?? []).map(wordsOf).join(' ').replace(/\s+/g, ' ').trim().slice(0, LONGEST);
      items.set(id, { id, text, isDone: node.attrs?.['checked'] === true });
    }
    node.content?.forEach(walk);
  };
  if (body) walk(body);
  return items;
}

/**
 * Makes the check boxes that are written in a note to-dos of the list. Words changed here are changed there; words
 * changed there stay until they are changed here. A box that is taken out takes its to-do along, and brings it back.
 * Boxes of write-ups are to-dos of their recording already: they are only ticked.
 */
export async function saveNoteTodos(
  note: NoteRow,
  before: NoteBody | null,
  after: NoteBody,
  transaction: Transaction,
): Promise<void> {
  const [was, is] = [checkItemsOf(before), checkItemsOf(after)];
  if (was.size === 0 && is.size === 0) return;
  const rows = await TodoRow.findAll({ where: { id: [...is.keys()] }, transaction });
  const known = new Map(rows.map((r) => [r.id, r]));
  for (const item of is.values()) {
    const row = known.get(item.id);
    if (!row) {
      if (!item.text) continue;
      await TodoRow.create(
        {
          ...{ id: item.id, recordingId: null, noteId: note.id, text: item.text, who: 'me', due: null, project: null },
          ...{ quote: null, startMs: null, state: 'ink', binnedAt: null, isChanged: true },
          doneAt: item.isDone ? new Date() : null,
        },
        { transaction },
      );
    } else if (row.noteId === note.id) {
      const before = was.get(item.id);
      const isReworded = item.text !== '' && item.text !== before?.text;
      const isTicked = before !== undefined && before.isDone !== item.isDone;
      await row.update(
        {
          ...(isReworded ? { text: item.text } : {}),
          ...(isTicked ? { doneAt: item.isDone ? (row.doneAt ?? new Date()) : null } : {}),
          binnedAt: null,
        },
        { transaction },
      );
    }
  }
  const gone = [...was.keys()].filter((id) => !is.has(id));
  if (gone.length) {
    await TodoRow.update(
      { binnedAt: new Date() },
      { where: { id: gone, noteId: note.id, binnedAt: null }, transaction },
    );
  }
}
