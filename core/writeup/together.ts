import type { MadeSection, Template } from '../contract/templates';
import { isUnnamed } from '../filing/people';
import { type Sentence, sentencesOf } from '../language/sentences';
import type { Passage } from '../transcript/manuscript';
import type { UnderstandingModel } from '../understanding/model';
import { type Source, writeUpOf } from './makeWriteUp';

/** One of several recordings that are written up together. */
export type OneOfSeveral = Source & { recordingId: string; title: string };

/** Between two recordings lies so much time that nothing of one counts as near to the other. */
const BETWEEN_MS = 600_000;

/**
 * Makes one write-up of several recordings, in their order: they are laid one behind the other, each as a part with
 * its title, and each line is given back to its recording and moment. A speaker without a name in one is another than
 * in the next.
 */
export function makeWriteUpOfSeveral(
  template: Template,
  several: readonly OneOfSeveral[],
  model: UnderstandingModel | null,
): MadeSection[] {
  const sentences: Sentence[] = [];
  const joined = {
    passages: [] as Passage[],
    slips: [] as Source['slips'][number][],
    todos: [] as Source['todos'][number][],
  };
  const starts: { atMs: number; recordingId: string }[] = [];
  const recordingOfTodo = new Map<string, string>();
  let atMs = 0;
  for (const { recordingId, title, passages, slips, todos } of several) {
    const shift = <T extends number | null>(ms: T): T => (ms === null ? ms : ((ms + atMs) as T));
    const moved = passages.map((p): Passage => ({
      ...p,
      ...{ startMs: shift(p.startMs), endMs: shift(p.endMs) },
      startsParagraph: p.startsParagraph || p === passages[0],
      speaker: p.speaker && isUnnamed(p.speaker) ? `${p.speaker} (${title})` : p.speaker,
      words: p.words.map((w) => ({ ...w, startMs: shift(w.startMs), endMs: shift(w.endMs) })),
    }));
    const before = joined.passages.length;
    for (const s of sentencesOf(moved))
      sentences.push({ ...s, passage: s.passage === null ? null : s.passage + before });
    joined.passages.push(...moved);
    joined.slips.push({ kind: 'heading', mark: null, startMs: atMs, endMs: null, text: title });
    for (const slip of slips) {
      if (slip.kind !== 'heading')
        joined.slips.push({ ...slip, startMs: shift(slip.startMs), endMs: shift(slip.endMs) });
    }
    for (const todo of todos) {
      joined.todos.push({ ...todo, startMs: shift(todo.startMs) });
      recordingOfTodo.set(todo.id, recordingId);
    }
    starts.push({ atMs, recordingId });
    atMs = Math.max(atMs, ...moved.map((p) => p.endMs), ...joined.slips.map((s) => s.startMs)) + BETWEEN_MS;
  }
  const givenBack = (ms: number | null, todoId: string | null) => {
    const start = ms === null ? undefined : starts.findLast((s) => s.atMs <= ms);
    return {
      startMs: start ? ms! - start.atMs : null,
      recordingId: start?.recordingId ?? (todoId ? (recordingOfTodo.get(todoId) ?? null) : null),
    };
  };
  return writeUpOf(template, joined, sentences, model).map((section) => ({
    ...section,
    groups: section.groups.map((g) => ({
      ...g,
      lines: g.lines.map((l) => ({ ...l, ...givenBack(l.startMs, l.todoId) })),
    })),
  }));
}
