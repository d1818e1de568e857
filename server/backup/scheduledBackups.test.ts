import fs from 'node:fs';
import path from 'node:path';
import { openDatabase } from '../database';
import { temporaryFolder } from '../testing/testServer';
import { ScheduledBackups, scheduledBackupOptions } from './scheduledBackups';
import { verify } from './restore';
import { log } from '../log';

const folder = temporaryFolder();
const dataFolder = path.join(folder, 'data');
const there = path.join(folder, 'kept');
let clock = new Date('2026-03-09T08:00:00Z');
const later = (hours: number) => (clock = new Date(clock.getTime() + hours * 3_600_000));

beforeAll(async () => {
  fs.mkdirSync(dataFolder);
  await (await openDatabase(dataFolder)).close();
});
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));

const options = { folder: there, everyHours: 24, keep: 3 };
const kept = (more = {}) => new ScheduledBackups(dataFolder, { ...options, ...more }, () => clock);
const names = () => fs.readdirSync(there).sort();

test('one is written when the last is old enough, and the oldest go', async () => {
  const archives = kept();
  for (let day = 0; day < 5; day++) {
    await archives.keepIfDue();
    // Not again on the same day.
    later(10);
    await archives.keepIfDue();
    later(14);
  }
  expect(names()).toEqual([
    'immeld-2026-03-11T08-00-00.immeld.zip',
    'immeld-2026-03-12T08-00-00.immeld.zip',
    'immeld-2026-03-13T08-00-00.immeld.zip',
  ]);
  for (const name of names()) await verify(path.join(there, name));
  expect(archives.view).toEqual({
    ...{ isOn: true, everyHours: 24, keep: 3, problem: null },
    lastAt: '2026-03-13T08:00:00.000Z',
  });
});

test('a server that was restarted goes on from what lies there; files of others stay', async () => {
  fs.writeFileSync(path.join(there, 'letter.txt'), 'mine');
  fs.writeFileSync(path.join(there, 'immeld-old.zip'), 'mine too');
  const archives = kept();
  archives.start();
  await archives.close();
  expect(names()).toContain('immeld-2026-03-14T08-00-00.immeld.zip');
  expect(names()).toEqual(expect.arrayContaining(['letter.txt', 'immeld-old.zip']));
  expect(names()).toHaveLength(5);
  const again = kept();
  again.start();
  await again.close();
  expect(again.view.lastAt).toBe('2026-03-14T08:00:00.000Z');
  expect(names()).toHaveLength(5);
});

test('what fails is said, no old one goes for it, and it is tried again', async () => {
  const errors = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const before = names();
  later(24);
  fs.renameSync(dataFolder, `${dataFolder} away`);
  const archives = kept();
  archives.start();
  await archives.close();
  expect(archives.view.problem).toContain('No Immeld data found');
  expect(names()).toEqual(before);
  fs.renameSync(`${dataFolder} away`, dataFolder);
  await archives.keepIfDue();
  expect(archives.view.problem).toBeNull();
  expect(names()).not.toEqual(before);
  // A place that cannot be a folder.
  const blocked = kept({ folder: path.join(there, 'letter.txt') });
  await blocked.keepIfDue();
  expect(blocked.view.problem).toBe('The last backup failed.');
  errors.mockRestore();
});

test('under a passphrase', async () => {
  const locked = path.join(folder, 'locked');
  await kept({ folder: locked, passphrase: 'im Schilf liegt ein Boot' }).keepIfDue();
  const [name] = fs.readdirSync(locked);
  expect(name).toMatch(/\.immeld$/);
  await verify(path.join(locked, name!), { passphrase: 'im Schilf liegt ein Boot' });
});

test('the environment says how; nonsense is refused at the start', async () => {
  expect(scheduledBackupOptions({})).toBeNull();
  expect(scheduledBackupOptions({ IMMELD_BACKUP_FOLDER: '/srv/kept' })).toEqual({
    folder: '/srv/kept',
    everyHours: 24,
    keep: 7,
  });
  expect(
    scheduledBackupOptions({
      ...{ IMMELD_BACKUP_FOLDER: '/srv/kept', IMMELD_BACKUP_EVERY_HOURS: '6', IMMELD_BACKUP_KEEP: '20' },
      IMMELD_PASSPHRASE: 'secret words',
    }),
  ).toEqual({ folder: '/srv/kept', everyHours: 6, keep: 20, passphrase: 'secret words' });
  expect(() => scheduledBackupOptions({ IMMELD_BACKUP_FOLDER: '/srv/kept', IMMELD_BACKUP_KEEP: '0' })).toThrow(
    'number from 1 up',
  );
  expect(() =>
    scheduledBackupOptions({ IMMELD_BACKUP_FOLDER: '/srv/kept', IMMELD_BACKUP_EVERY_HOURS: 'often' }),
  ).toThrow('often');
});
