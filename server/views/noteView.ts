import type { LinkTarget, Note, NoteCard } from '@immeld/core/contract/notes';
import { linksOfNote, todosOfNote, withTicks, withTitles } from '../filing/noteText';
import { LinkRow, NoteRow, textChangedAt } from '../models/note';
import { Recording, titleOf } from '../models/recording';
import { Tag } from '../models/tag';
import { TodoRow } from '../models/todo';

const FIRST_WORDS_LENGTH = 180;

export const NOTE_INCLUDES = [{ model: Tag, as: 'tags' }];

export function noteCard(n: NoteRow): NoteCard {
  const text = n.text.replace(/\s+/g, ' ');
  const cut = text.lastIndexOf(' ', FIRST_WORDS_LENGTH);
  return {
    ...{ id: n.id, title: n.title, day: n.day ?? null, folderId: n.folderId ?? null },
    firstWords: text.length <= FIRST_WORDS_LENGTH ? text : `${text.slice(0, cut > 0 ? cut : FIRST_WORDS_LENGTH)} …`,
    tags: (n.tags ?? []).map((t) => t.name).sort((a, b) => a.localeCompare(b)),
    ...{ isFavourite: n.isFavourite, isArchived: Boolean(n.archivedAt), isBinned: Boolean(n.binnedAt) },
    ...{ madeAt: n.createdAt.toISOString(), changedAt: n.updatedAt.toISOString() },
  };
}

/** A note with its links by the titles that they have now; null where there is none. */
export async function noteView(id: string): Promise<Note | null> {
  const note = await NoteRow.findByPk(id, { include: NOTE_INCLUDES });
  if (!note) return null;
  const found = linksOfNote(note.body);
  const idsOf = (kind: string) => found.filter((l) => l.kind === kind).map((l) => l.id);
  const links: LinkTarget[] = [
    ...(await Recording.findAll({ where: { id: idsOf('recording') } })).map((r) => ({
      ...{ kind: 'recording' as const, id: r.id, title: titleOf(r) },
    })),
    ...(await NoteRow.findAll({ where: { id: idsOf('note') } })).map((n) => ({
      ...{ kind: 'note' as const, id: n.id, title: n.title },
    })),
  ];
  const back = await LinkRow.findAll({
    where: { toNoteId: id },
    include: { model: NoteRow, as: 'from', where: { binnedAt: null }, required: true },
  });
  const todos = await TodoRow.findAll({ where: { id: todosOfNote(note.body) } });
  const isDone = new Map(todos.map((t) => [t.id, t.doneAt !== null]));
  const linkedFrom = [...new Map(back.map((l) => [l.fromNoteId, l.from!])).values()];
  return {
    ...noteCard(note),
    body: note.body && withTicks(withTitles(note.body, new Map(links.map((l) => [l.id, l.title]))), isDone),
    textChangedAt: textChangedAt(note),
    links,
    linkedFrom: linkedFrom.map((n) => ({ kind: 'note' as const, id: n.id, title: n.title })),
  };
}
