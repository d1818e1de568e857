import fs from 'node:fs';
import path from 'node:path';
import { FIRST_ACCOUNT } from '../../server/accounts/firstAccount';
import { asAccount } from '../../server/accounts/currentAccount';
import { openDatabase } from '../../server/database';
import { Recording } from '../../server/models/recording';
import { replaceAllPassages } from '../../server/transcript/corrections';
import type { FileTranscript } from '../../server/recognition/transcribeFile';
import { projectRoot } from '../../server/projectRoot';
import { passagesFrom } from '../../core/transcript/passages';

const WORDS = 45_000;

/** The demo's lecture again and again until it has 45,000 words. */
export async function seedFiveHours(folder: string): Promise<{ id: string; words: number; hours: number }> {
  const file = path.join(projectRoot(), 'demo', 'expected', 'lecture.transcript.json');
  const lecture = JSON.parse(fs.readFileSync(file, 'utf8')) as FileTranscript;
  const once = lecture.passages.flatMap((p) => p.words);
  const words = Array.from({ length: Math.ceil(WORDS / once.length) }, (_, i) =>
    once.map((w) => ({
      ...w,
      startMs: w.startMs + i * lecture.durationMs,
      endMs: w.endMs + i * lecture.durationMs,
    })),
  ).flat();
  const database = await openDatabase(folder);
  const id = await asAccount(FIRST_ACCOUNT, async () => {
    const like = (await Recording.findOne({ where: { fileName: 'Lecture infiltration and field capacity.m4a' } }))!;
    const { id: _, ...values } = like.get();
    const recording = await Recording.create({
      ...values,
      ...{ title: 'Five hours', sha256: 'f'.repeat(64), durationMs: words.at(-1)!.endMs, moreSounds: [], video: null },
    });
    const passages = passagesFrom(words);
    await database.transaction(async (t) => {
      await replaceAllPassages(recording.id, passages, false, t);
    });
    return recording.id;
  });
  await database.close();
  return { id, words: words.length, hours: words.at(-1)!.endMs / 3_600_000 };
}
