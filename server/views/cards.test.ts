import fs from 'node:fs';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const list = async (query: string): Promise<RecordingCard[]> =>
  (await askJson<{ items: RecordingCard[] }>(server, 'GET', `/recordings?${query}`)).body.items;

it('a card in a list says the same as the page of its recording', async () => {
  const id = await say({
    title: 'Quay',
    text: `${'The limes along the quay need water and '.repeat(12)}I need to call Bram.`,
  });
  await askJson(server, 'PATCH', `/recordings/${id}`, {
    ...{ tags: ['trees', 'Élan', 'äpfel'], people: ['Bram Castellan'], project: 'Lime Quay', isFavourite: true },
  });
  const page = (await askJson<Recording>(server, 'GET', `/recordings/${id}`)).body as unknown as Record<
    string,
    unknown
  >;
  const card = (await list('place=all')).find((c) => c.id === id)!;
  expect(card.tags).toEqual(['äpfel', 'Élan', 'trees']);
  expect(card.firstWords).toMatch(/^The limes along .{140,} …$/);
  const shared = Object.fromEntries(Object.keys(card).map((key) => [key, page[key]]));
  expect(card).toEqual({ ...shared, pencilTodos: card.pencilTodos });
});

it('lists are found by place, tag and person together, and are counted whole', async () => {
  const [both, tagged] = [await say({ title: 'B', text: 'Water.' }), await say({ title: 'A', text: 'Water.' })];
  await askJson(server, 'PATCH', `/recordings/${both}`, { tags: ['roof'], people: ['Wren Albright'] });
  await askJson(server, 'PATCH', `/recordings/${tagged}`, { tags: ['roof'] });
  const { people } = (await askJson<{ people: { id: string; name: string }[] }>(server, 'GET', '/shelves')).body;
  const wren = people.find((p) => p.name === 'Wren Albright')!.id;
  expect((await list('tag=roof&sort=title')).map((c) => c.id)).toEqual([tagged, both]);
  expect((await list(`tag=roof&personId=${wren}`)).map((c) => c.id)).toEqual([both]);
  const page = await askJson<{ total: number; items: unknown[] }>(
    server,
    'GET',
    '/recordings?tag=roof&limit=1&offset=1',
  );
  expect([page.body.total, page.body.items.length]).toEqual([2, 1]);
});
