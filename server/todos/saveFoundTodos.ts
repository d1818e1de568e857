import type { SpeakerChange } from '@immeld/core/contract/speakers';
import type { Proposals } from '@immeld/core/filing/proposals';
import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { isCalled } from '@immeld/core/language/todos/people';
import { reconcile } from '@immeld/core/language/todos/reconcile';
import type { Transaction } from 'sequelize';
import { Project } from '../models/project';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { TodoRow } from '../models/todo';
import { longTasks } from '../tasks/taskPool';
import { passagesOf } from '../transcript/corrections';

type Found = Proposals['todos'][number];

/**
 * Lays to-dos down that were found in a recording. What the person accepted, dropped, did or changed stays; what is in
 * pencil follows, and nothing comes twice.
 */
export async function saveFoundTodos(
  recordingId: string,
  todos: readonly Found[],
  transaction: Transaction | null,
): Promise<void> {
  const { figures } = await sharedSettings();
  const found = todos.map((t) => ({ ...t, text: withNumerals(t.text, new Set(figures)) }));
  const rows = await TodoRow.findAll({ where: { recordingId }, transaction });
  const known = rows.map(({ id, text, foundText, startMs, isChanged, state, doneAt, binnedAt }) => ({
    ...{ id, text, foundText, startMs },
    isFixed: isChanged || state !== 'pencil' || doneAt !== null || binnedAt !== null,
  }));
  const { add, update, remove } = reconcile(known, found);
  const columns = ({ text, who, due, project, repeat, quote, startMs, sure }: Found) => ({
    ...{ text, foundText: text, who, due, project, repeat, quote, startMs, sure },
  });
  await TodoRow.bulkCreate(
    add.map((f) => ({ recordingId, ...columns(f), state: 'pencil' as const, doneAt: null, binnedAt: null })),
    { transaction },
  );
  for (const { id, found: f } of update) await TodoRow.update(columns(f), { where: { id }, transaction });
  if (remove.length) await TodoRow.destroy({ where: { id: remove }, transaction });
}

/** What its person says that a recording is. */
export const talkOf = ({ chosenKind, voice }: Recording) => ({ kind: chosenKind, isOther: voice === 'other' });

/** What is to be done by what is said in `passages`, with the projects and the name of today. */
export async function findTodosIn(recording: Recording, passages: readonly Passage[]): Promise<Found[]> {
  const { startedAt } = recording;
  const [projects, { ownName }] = await Promise.all([Project.findAll(), sharedSettings()]);
  const named = projects.map(({ name, otherNames }) => ({ name, otherNames }));
  return longTasks.run({
    ...{ kind: 'todos' as const, passages: JSON.stringify(passages) },
    facts: { startedAt, projects: named, ownName, ...talkOf(recording) },
  });
}

/** Somebody was named, or speaks what another was thought to: who has to do what follows. */
export async function followSpeaker(recording: Recording, { from, to }: SpeakerChange): Promise<void> {
  if (from && to) {
    const { ownName } = await sharedSettings();
    const who = isCalled(ownName, to) ? 'me' : to;
    await TodoRow.update({ who }, { where: { recordingId: recording.id, who: from } });
  }
  await findTodosAgain(recording);
}

/** Finds the to-dos of a recording anew, with what is known of it now. */
export async function findTodosAgain(recording: Recording): Promise<void> {
  const todos = await findTodosIn(recording, await passagesOf(recording.id));
  await recording.sequelize.transaction((transaction) => saveFoundTodos(recording.id, todos, transaction));
}
