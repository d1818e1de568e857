import fs from 'node:fs';
import path from 'node:path';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { ARCHIVE_VERSION } from './archive';
import { restore, verify } from './restore';

/** Archives as earlier versions wrote them; one is laid down with each change of the form, and none is ever changed. */
const FIXTURES = path.join(__dirname, 'fixtures');
const names = fs.readdirSync(FIXTURES);
const folder = temporaryFolder();
afterAll(() => fs.rmSync(folder, { recursive: true }));

it('there is one of each version of the archive', () => {
  for (let version = 1; version <= ARCHIVE_VERSION; version++) {
    expect(names.filter((name) => name.startsWith(`version-${version}-`)).length).toBeGreaterThan(0);
  }
});

it.each(names)('%s is read, brought to the newest form, and what it holds can be used', async (name) => {
  const file = path.join(FIXTURES, name);
  const manifest = await verify(file);
  // Below a hidden folder, as the usual data folder is: what lies there is sent all the same.
  const data = path.join(folder, '.hidden', name);
  await restore(file, data);
  const server = await startTestServer(data, new ControlledPool());
  const ask = async <T>(address: string) => (await askJson<T>(server, 'GET', address)).body;
  const { items } = await ask<{ items: RecordingCard[] }>('/recordings?place=all');
  expect(items).toHaveLength(manifest.objects['recordings']!);
  const call = items.find((r) => r.title === 'Dentist moves the appointment')!;
  const recording = await ask<Recording>(`/recordings/${call.id}`);
  expect(recording.passages).toHaveLength(manifest.objects['passages']!);
  const words = recording.passages.flatMap((p) => p.words.map((w) => w.text));
  expect(words.join(' ')).toContain('appointment');
  const sound = await fetch(`${server.address}/api/recordings/${call.id}/sound`);
  expect((await sound.arrayBuffer()).byteLength).toBe(74_425);
  const { results } = await ask<{ results: unknown[] }>('/find?q=appointment');
  expect(results.length).toBeGreaterThan(0);
  const { items: todos } = await ask<{ items: unknown[] }>('/todos?state=all');
  expect(todos.length).toBeGreaterThan(0);
  await server.close();
});
