/**
 * A thousand recordings into one file and back, into an empty data folder and into an account of a server that has data:
 * time, size, memory, and whether all of it is there. Prints a Markdown table.
 */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { passagesFrom } from '../../core/transcript/passages';
import { makeDemoTemplate, Immeld } from '../../e2e/immeld';
import { asAccount, asServer } from '../../server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '../../server/accounts/firstAccount';
import { backup } from '../../server/backup/backup';
import { mergeArchive } from '../../server/backup/mergeArchive';
import { restore, verify } from '../../server/backup/restore';
import { openDatabase } from '../../server/database';
import { AccountRow } from '../../server/models/account';
import { PassageRow } from '../../server/models/passage';
import { Recording } from '../../server/models/recording';
import type { FileTranscript } from '../../server/recognition/transcribeFile';
import { replaceAllPassages } from '../../server/transcript/corrections';

const MANY = 1000;
const VOICES = ['voice-message', 'wearable', 'letter', 'diary'] as const;
const root = path.resolve(__dirname, '..', '..');

async function seed(data: string): Promise<void> {
  const database = await openDatabase(data);
  await asAccount(FIRST_ACCOUNT, async () => {
    const like = (await Recording.findOne({ where: { fileName: 'Letter to the council.m4a' } }))!;
    for (let i = 0; i < MANY; i++) {
      const voice = VOICES[i % VOICES.length]!;
      const said = JSON.parse(
        fs.readFileSync(path.join(root, 'demo', 'expected', `${voice}.transcript.json`), 'utf8'),
      ) as FileTranscript;
      const ending = fs.existsSync(path.join(root, 'demo', 'sound', `${voice}.ogg`)) ? 'ogg' : 'm4a';
      const id = randomUUID();
      const { id: _, captureId: __, ...values } = like.get();
      fs.copyFileSync(
        path.join(root, 'demo', 'sound', `${voice}.${ending}`),
        path.join(data, 'sound', `${id}.${ending}`),
      );
      await Recording.create({
        ...values,
        ...{ id, title: `Memo ${i + 1}`, fileName: `${voice} ${i}.${ending}`, soundFile: `${id}.${ending}` },
        durationMs: said.durationMs,
      });
      await database.transaction((t) =>
        replaceAllPassages(id, passagesFrom(said.passages.flatMap((p) => p.words)), false, t),
      );
    }
  });
  await database.close();
}

type Measured = { seconds: number; megabytes: number; says: string };

/** One step in a process of its own, so that its memory is its own. */
async function step(name: string, folder: string): Promise<void> {
  const [data, plain, locked] = ['data', 'plain.zip', 'locked.immeld'].map((n) => path.join(folder, n)) as [
    string,
    string,
    string,
  ];
  const passphrase = 'for the bench only';
  const started = performance.now();
  let says = '';
  const size = (file: string) => `${(fs.statSync(file).size / 1e6).toFixed(0)} MB`;
  if (name === 'keep') {
    const { objects, files } = await backup(data, plain);
    says = `${objects['recordings']} recordings, ${objects['passages']} passages, ${files.length} files, ${size(plain)}`;
  } else if (name === 'lock') {
    await backup(data, locked, { passphrase });
    says = size(locked);
  } else if (name === 'verify') {
    await verify(plain);
    says = 'whole';
  } else if (name === 'restore') {
    await restore(plain, path.join(folder, 'back'));
    says = await same(data, path.join(folder, 'back'));
  } else if (name === 'unlock') {
    await restore(locked, path.join(folder, 'unlocked'), { passphrase });
    says = await same(data, path.join(folder, 'unlocked'));
  } else {
    const other = path.join(folder, 'other');
    const database = await openDatabase(other);
    const account = await asServer(async () => (await AccountRow.create({ email: null, passwordHash: null })).id);
    fs.mkdirSync(path.join(other, 'sound'), { recursive: true });
    fs.mkdirSync(path.join(other, 'pictures'), { recursive: true });
    const { recordings, notes, todos } = await mergeArchive(plain, other, account);
    await database.close();
    says = `${recordings} recordings, ${notes} notes, ${todos} to-dos came back`;
  }
  const seconds = (performance.now() - started) / 1000;
  const measured: Measured = { seconds, megabytes: process.resourceUsage().maxRSS / 1024, says };
  process.stdout.write(JSON.stringify(measured));
}

/** Compares number and words of all recordings, and the names and sizes of all sounds. */
async function same(one: string, other: string): Promise<string> {
  const look = async (data: string) => {
    const database = await openDatabase(data);
    const rows = await asServer(() => PassageRow.findAll({ attributes: ['recordingId', 'text'], raw: true }));
    const count = await asServer(() => Recording.count());
    await database.close();
    const sounds = fs
      .readdirSync(path.join(data, 'sound'))
      .map((n) => [n, fs.statSync(path.join(data, 'sound', n)).size]);
    return JSON.stringify([count, rows, sounds.sort()]);
  };
  return (await look(one)) === (await look(other)) ? 'all of it, word for word' : 'NOT THE SAME';
}

async function main(): Promise<void> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-bench-archive-'));
  await makeDemoTemplate();
  const immeld = new Immeld();
  immeld.makeDemoData();
  fs.renameSync(immeld.dataFolder, path.join(folder, 'data'));
  immeld.remove();
  await seed(path.join(folder, 'data'));
  console.log(`| ${MANY} recordings beside the demo's | time | peak memory | |`);
  console.log('|---|---|---|---|');
  const steps = {
    keep: 'into one file',
    lock: 'into one file under a passphrase',
    verify: 'every file of it compared',
    restore: 'into an empty data folder',
    unlock: 'the same from under the passphrase',
    return: 'into an account of a server',
  };
  for (const [name, title] of Object.entries(steps)) {
    const said = execFileSync(
      process.execPath,
      [path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'), __filename, 'step', name, folder],
      { encoding: 'utf8', cwd: root },
    );
    const { seconds, megabytes, says } = JSON.parse(said) as Measured;
    console.log(`| ${title} | ${seconds.toFixed(1)} s | ${Math.round(megabytes)} MB | ${says} |`);
  }
  fs.rmSync(folder, { recursive: true });
}

const [kind, name, folder] = process.argv.slice(2);
void (kind === 'step' ? step(name!, folder!) : main());
