import type { FoundAnswer } from '@immeld/core/contract/find';
import type { Question } from '@immeld/core/find/question';
import { Op } from 'sequelize';
import { paddedRange, localDay } from '../calendar/localDay';
import { newestWith } from '../filing/shelving';
import { Project } from '../models/project';
import { Recording, titleOf } from '../models/recording';
import { TodoRow } from '../models/todo';
import { WriteUpRow } from '../models/writeUp';

const MAX_RECORDINGS = 200;

/** What was recorded in a period or with somebody: by day, within it by project, each with a sentence of its own. */
export async function digestOf({ period, people }: Question, zone: string | undefined): Promise<FoundAnswer['digest']> {
  const recordings = await Recording.findAll({
    where: {
      binnedAt: null,
      ...(people.length ? { id: (await newestWith(people, MAX_RECORDINGS)).map((r) => r.id) } : {}),
      ...(period ? { startedAt: { [Op.between]: [period.from, `${period.to}T99`] } } : {}),
    },
    include: { model: Project, as: 'project' },
    order: [['startedAt', 'ASC']],
    limit: MAX_RECORDINGS,
  });
  const summaries = await WriteUpRow.findAll({
    where: { recordingId: recordings.map((r) => r.id), template: 'short-summary', state: { [Op.ne]: 'dropped' } },
  });
  const done = period ? await doneIn(period, zone) : [];
  const dates = [...new Set([...recordings.map((r) => r.startedAt.slice(0, 10)), ...done.map((d) => d.date)])].sort();
  return dates.map((date) => {
    const ofDay = recordings.filter((r) => r.startedAt.startsWith(date));
    const names = [...new Set(ofDay.map((r) => r.project?.name ?? null))];
    return {
      date,
      projects: names.map((name) => ({
        name,
        recordings: ofDay
          .filter((r) => (r.project?.name ?? null) === name)
          .map((r) => {
            const [sentence] = summaries.find((s) => s.recordingId === r.id)?.sentences ?? [];
            return {
              ...{ id: r.id, title: titleOf(r), startedAt: r.startedAt, durationMs: r.durationMs },
              ...{ sentence: sentence?.text ?? null, startMs: sentence?.startMs ?? null },
            };
          }),
      })),
      todosDone: done.filter((d) => d.date === date).map((d) => d.text),
    };
  });
}

/** What was done on these days, where the person is. */
async function doneIn(
  { from, to }: { from: string; to: string },
  zone: string | undefined,
): Promise<{ date: string; text: string }[]> {
  const rows = await TodoRow.findAll({
    where: { binnedAt: null, doneAt: { [Op.between]: paddedRange(from, to) } },
    attributes: ['doneAt', 'text'],
    order: [['doneAt', 'ASC']],
  });
  return rows
    .map(({ doneAt, text }) => ({ date: localDay(doneAt!, zone), text }))
    .filter(({ date }) => date >= from && date <= to);
}
