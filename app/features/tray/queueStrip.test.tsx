import type { Job } from '@immeld/core/contract/jobs';
import { screen, waitFor } from '@testing-library/react';
import { answering, mount } from '../../testing/mount';
import { QueueStrip } from './queueStrip';

const idOf = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const job = (n: number, name: string, state: Job['state'], more: Partial<Job> = {}): Job => ({
  ...{ id: idOf(n), recordingId: idOf(n + 4), name, state, percent: null, secondsLeft: null, spokenAt: null },
  ...{ latestWords: '', passages: 0, problem: null, ...more },
});
const [LECTURE, CALL, MEMO] = [
  job(1, 'Evening lecture', 'running', { percent: 41.2, secondsLeft: 130 }),
  job(2, 'Planning call', 'waiting'),
  job(3, 'Old memo', 'paused', { percent: 10 }),
];
const begin = (items: readonly Job[]) => {
  let now = items;
  const order = {
    'PUT /api/job-order': ({ body }: { body: unknown }) => {
      const placeOf = ({ id }: Job) => ((body as { ids: string[] }).ids.indexOf(id) + 100) % 100;
      now = [...items].sort((a, b) => placeOf(a) - placeOf(b));
      return { items: now };
    },
  };
  const ok = Object.fromEntries(
    items.flatMap((j) => ['pause', 'resume', 'front', 'cancel'].map((what) => [`POST /api/jobs/${j.id}/${what}`, j])),
  );
  const server = answering({ 'GET /api/jobs': () => ({ items: now }), ...order, ...ok });
  return { server, ...mount(<QueueStrip />) };
};
const sent = ({ sent: all }: ReturnType<typeof answering>) => all().map(({ address }) => address.split('/jobs/')[1]);

it('is not there for one alone, which stands on its own card', async () => {
  const { server } = begin([LECTURE]);
  await waitFor(() => expect(server.asked).toHaveLength(1));
  expect(screen.queryByRole('region')).toBeNull();
});

it('counts all that are not done on one line, and pauses and resumes them together', async () => {
  const { server, hand } = begin([LECTURE, CALL, MEMO]);
  expect(await screen.findByText('Transcriptions: 1 running, 1 waiting, 1 paused')).toBeTruthy();
  await hand.click(screen.getByRole('button', { name: 'Pause all' }));
  await hand.click(screen.getByRole('button', { name: 'Resume all' }));
  await waitFor(() => expect(sent(server)).toEqual([`${LECTURE.id}/pause`, `${CALL.id}/pause`, `${MEMO.id}/resume`]));
});

it('opened, it shows each with how far it is and what can be done about it', async () => {
  const { server, hand } = begin([LECTURE, CALL, MEMO]);
  await hand.click(await screen.findByRole('button', { name: 'Show queue' }));
  expect(screen.getAllByRole('listitem').map((row) => row.getAttribute('aria-label'))).toEqual([
    ...['Evening lecture', 'Planning call', 'Old memo'],
  ]);
  expect(screen.getByText('41% transcribed · about 2 min left')).toBeTruthy();
  expect(screen.getByText('Paused · 10% transcribed')).toBeTruthy();
  await hand.click(screen.getByRole('button', { name: 'Move to front' }));
  await hand.click(screen.getByRole('button', { name: 'Resume' }));
  await waitFor(() => expect(sent(server)).toEqual([`${CALL.id}/front`, `${MEMO.id}/resume`]));
});

it('is put in order by the handle and the arrow keys; what comes before keeps its place', async () => {
  const NEWS = job(4, 'Evening news', 'waiting');
  const { server, hand } = begin([LECTURE, CALL, NEWS, MEMO]);
  await hand.click(await screen.findByRole('button', { name: 'Show queue' }));
  screen.getByRole('button', { name: 'Move Evening news: drag it, or use the arrow keys' }).focus();
  await hand.keyboard('{ArrowUp}');
  const [put] = await waitFor(() => {
    const orders = server.sent().filter(({ address }) => address.endsWith('/job-order'));
    expect(orders).toHaveLength(1);
    return orders;
  });
  expect(put!.body).toEqual({ ids: [LECTURE.id, NEWS.id] });
  expect(screen.getAllByRole('listitem').map((row) => row.getAttribute('aria-label'))).toEqual([
    ...['Evening lecture', 'Evening news', 'Planning call', 'Old memo'],
  ]);
});
