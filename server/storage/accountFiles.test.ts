import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Sequelize } from 'sequelize';
import { asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { openDatabase } from '../database';
import { AccountRow } from '../models/account';
import { NoteRow } from '../models/note';
import { NotePictureRow } from '../models/noteHistory';
import { Recording } from '../models/recording';
import { SlipRow } from '../models/slip';
import { say } from '../testing/filledServer';
import { temporaryFolder } from '../testing/testServer';
import { filesOfAccount } from './accountFiles';
import { heldUpload, uploadsOf } from './heldUploads';

const folder = temporaryFolder();
let database: Sequelize;
beforeAll(async () => {
  database = await openDatabase(folder);
});
afterAll(async () => {
  await database.close();
  fs.rmSync(folder, { recursive: true });
});

const mine = <T>(work: () => Promise<T>): Promise<T> => asAccount(FIRST_ACCOUNT, work);

test('all files of an account are named: sounds, copies, what was added, videos, pictures, files beside words', async () => {
  expect(await filesOfAccount(database, FIRST_ACCOUNT)).toEqual([]);
  const id = await say({ text: 'One.' });
  const added = {
    fileName: 'later.m4a',
    sha256: '',
    sizeBytes: 1,
    captureId: null,
    startedAt: '',
    slipId: randomUUID(),
  };
  const video = { mediaType: 'video/webm', captureId: null, sha256: '', sizeBytes: 1 };
  await Recording.update(
    {
      ...{ soundFile: 'a.m4a', playbackFile: 'a.play.ogg', video: { ...video, file: 'a.webm' } },
      moreSounds: [{ ...added, soundFile: 'b.m4a' }],
    },
    { where: { id } },
  );
  const slip = { recordingId: id, mark: null, startMs: 0, endMs: null, text: '', binnedAt: null };
  const [withFile, withPicture] = [randomUUID(), randomUUID()];
  await mine(async () => {
    await SlipRow.create({ ...slip, id: withPicture, kind: 'picture', pictureFile: 'p.png' });
    await SlipRow.create({
      ...{ ...slip, id: withFile, kind: 'file', pictureFile: null },
      file: { name: 'plan.pdf', mediaType: 'application/pdf', sizeBytes: 3 },
    } as never);
    const note = await NoteRow.create({ title: 'N', body: null, text: '', day: null, folderId: null } as never);
    await NotePictureRow.create({ noteId: note.id, file: 'n.png' });
  });
  expect((await filesOfAccount(database, FIRST_ACCOUNT)).sort()).toEqual(
    [
      'pictures/n.png',
      'pictures/p.png',
      `pictures/${withFile}.file`,
      'sound/a.m4a',
      'sound/a.play.ogg',
      'sound/a.webm',
      'sound/b.m4a',
    ].sort(),
  );
  const other = await AccountRow.create({ email: null, passwordHash: null });
  expect(await filesOfAccount(database, other.id)).toEqual([]);
  await mine(() => Recording.destroy({ where: { id } }));
  expect(await filesOfAccount(database, FIRST_ACCOUNT)).toEqual(['pictures/n.png']);
});

test('a name that leads elsewhere leads nowhere', async () => {
  const id = await say({ text: 'Two.' });
  for (const [soundFile, named] of [
    ['../immeld.sqlite', 'sound/immeld.sqlite'],
    ['/etc/hostname', 'sound/hostname'],
    ['a/b/../../../c.m4a', 'sound/c.m4a'],
  ] as const) {
    await Recording.update({ soundFile }, { where: { id } });
    expect(await filesOfAccount(database, FIRST_ACCOUNT)).toContain(named);
  }
});

test('what an account is sending is told by its description', async () => {
  const uploads = path.join(folder, 'uploads');
  fs.mkdirSync(uploads, { recursive: true });
  const held = { aa: FIRST_ACCOUNT, bb: randomUUID(), cc: FIRST_ACCOUNT };
  for (const [id, account] of Object.entries(held)) {
    fs.writeFileSync(path.join(uploads, id), 'half');
    fs.writeFileSync(path.join(uploads, `${id}.json`), JSON.stringify({ id, size: 9, metadata: { account } }));
  }
  expect((await uploadsOf(FIRST_ACCOUNT, uploads)).map((f) => path.basename(f)).sort()).toEqual([
    'aa',
    'aa.json',
    'cc',
    'cc.json',
  ]);
  expect(await heldUpload('bb', uploads)).toMatchObject({ id: 'bb', size: 9 });
  expect(await heldUpload('dd', uploads)).toBeNull();
  expect(await heldUpload('../immeld', uploads)).toBeNull();
});
