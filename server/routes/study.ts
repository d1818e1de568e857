import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { RecallCard, RecallProposal } from '@immeld/core/contract/study';
import { afterReview, newRecall } from '@immeld/core/study/schedule';
import { Router } from 'express';
import { Op } from 'sequelize';
import { RecallRow } from '../models/recall';
import { Recording, titleOf } from '../models/recording';
import { longTasks } from '../tasks/taskPool';
import { passagesJson } from '../transcript/readPassages';
import { checkRecording } from './checkRecording';
import { serve } from './serve';

/** More questions nobody goes through. */
const MAX_CARDS = 500;
const MAX_DUE_RECORDINGS = 50;

const cardView = ({ id, question, answer, startMs, endMs, isOwn, dueAt, schedule }: RecallRow): RecallCard => ({
  ...{ id, question, answer, startMs, endMs, isOwn, dueAt, reviews: schedule.reps },
});

async function cardBy(id: string): Promise<RecallRow> {
  const card = await RecallRow.findByPk(id);
  if (!card) throw new Problem('not-found', 'This question no longer exists.');
  return card;
}

/** What is learned from recordings: questions, and when they come back. */
export function studyRoutes(): Router {
  const router = Router();

  serve(router, ENDPOINTS.listRecall, async ({ params }) => {
    await checkRecording(params.id);
    const rows = await RecallRow.findAll({ where: { recordingId: params.id }, order: ['startMs'] });
    const passages = await passagesJson(params.id);
    const found = await longTasks.run({ kind: 'recall', passages });
    // What was kept is not proposed again, and what was dropped is not, either.
    const isKnown = (p: RecallProposal) =>
      rows.some((r) => !r.isOwn && r.startMs === p.startMs && r.answer === p.answer);
    return {
      items: rows.filter((r) => r.binnedAt === null).map(cardView),
      proposals: found.filter((p) => !isKnown(p)),
    };
  });

  serve(router, ENDPOINTS.addRecall, async ({ params, body }) => {
    await checkRecording(params.id);
    const known = await RecallRow.findByPk(body.id);
    if (known) return cardView(known);
    if ((await RecallRow.count({ where: { recordingId: params.id } })) >= MAX_CARDS)
      throw new Problem('invalid-request', 'A recording can have up to 500 questions.', 'Your question is still here.');
    const { isDropped = false, ...card } = body;
    const schedule = newRecall(new Date());
    return cardView(
      await RecallRow.create({
        ...{ ...card, recordingId: params.id, schedule, dueAt: schedule.due },
        binnedAt: isDropped ? new Date() : null,
      }),
    );
  });

  serve(router, ENDPOINTS.changeRecall, async ({ params, body: { isBinned, ...words } }) => {
    const card = await cardBy(params.id);
    await card.update({ ...words, ...(isBinned === undefined ? {} : { binnedAt: isBinned ? new Date() : null }) });
    return cardView(card);
  });

  serve(router, ENDPOINTS.reviewRecall, async ({ params, body }) => {
    const card = await cardBy(params.id);
    const schedule = afterReview(card.schedule, body.rating, new Date());
    await card.update({ schedule, dueAt: schedule.due });
    return cardView(card);
  });

  serve(router, ENDPOINTS.listDueRecall, async () => {
    const due = await RecallRow.findAll({
      where: { binnedAt: null, dueAt: { [Op.lte]: new Date().toISOString() } },
      attributes: ['recordingId'],
    });
    const counts = new Map<string, number>();
    for (const { recordingId } of due) counts.set(recordingId, (counts.get(recordingId) ?? 0) + 1);
    const recordings = await Recording.findAll({ where: { id: [...counts.keys()], binnedAt: null } });
    const items = recordings.map((r) => ({ recordingId: r.id, title: titleOf(r), count: counts.get(r.id)! }));
    return { items: items.sort((a, b) => b.count - a.count).slice(0, MAX_DUE_RECORDINGS) };
  });

  return router;
}
