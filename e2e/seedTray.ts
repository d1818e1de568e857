/** Puts recordings with words into a data folder: seedTray FOLDER COUNT. Their suggestions come from what is filed there. */
import { yearOfFilings } from '@immeld/core/filing/evaluation/yearOfFilings';
import { proposalsFor } from '@immeld/core/filing/proposals';
import { understandingModel } from '@immeld/server/understanding/model';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { asAccount } from '@immeld/server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '@immeld/server/accounts/firstAccount';
import { openDatabase } from '@immeld/server/database';
import { setPeople, setTags } from '@immeld/server/filing/shelving';
import { recordChanges } from '@immeld/server/history/changeSets';
import { filingContextFor } from '@immeld/server/jobs/filingContext';
import { saveRecognition } from '@immeld/server/jobs/saveRecognition';
import { Folder } from '@immeld/server/models/folder';
import { Recording } from '@immeld/server/models/recording';
import { SoundStore } from '@immeld/server/storage/soundStore';

const FILED_BEFORE = 60;
const MS_A_WORD = 350;

async function seed(folder: string, waiting: number): Promise<void> {
  const database = await openDatabase(folder);
  const sounds = new SoundStore(folder);
  const memos = yearOfFilings(FILED_BEFORE + waiting, 11);
  const folders = new Map<string, string>();
  for (const name of new Set(memos.map((m) => m.folder))) {
    folders.set(name, (await Folder.create({ name, tint: 'petrol', parentId: null, binnedAt: null })).id);
  }
  for (const [i, memo] of memos.entries()) {
    const words = memo.text.split(' ').map((text, k) => {
      return { startMs: k * MS_A_WORD, endMs: k * MS_A_WORD + 300, text, confidence: 0.9 };
    });
    const recording = await Recording.create({
      ...{
        title: null,
        fileName: `memo-${i}.m4a`,
        source: memo.source,
        mediaType: 'audio/mp4',
        soundFile: `none-${i}.m4a`,
      },
      ...{ playbackFile: null, sha256: String(i).padStart(64, '0'), sizeBytes: 1000, durationMs: null },
      ...{ startedAt: memo.startedAt, state: 'waiting', problem: null, folderId: null, filedAt: null, binnedAt: null },
      ...{ suggestion: { title: null, folderId: null, tags: [] }, peaks: [], model: null, language: 'en' },
    });
    const passages = passagesFrom(words);
    const proposals = proposalsFor(
      passages,
      { ...(await filingContextFor(recording)), people: memo.people },
      understandingModel(),
    );
    const result = {
      durationMs: words.length * MS_A_WORD,
      peaks: words.map((_, k) => (k * 37) % 90),
      passages,
      proposals,
    };
    await saveRecognition(
      recording,
      { ...result, asides: [], hasPlaybackCopy: false, voices: [], seamsMs: [] } as never,
      sounds,
    );
    if (i >= FILED_BEFORE) continue;
    await recordChanges(database, async (deed) => {
      await deed.change(recording, {
        title: proposals.title,
        folderId: folders.get(memo.folder)!,
        filedAt: new Date(memo.startedAt),
      });
      await setTags(recording.id, memo.tags, deed);
      await setPeople(recording.id, memo.people, deed);
      return { text: 'Filed.', count: 1 };
    });
  }
  await database.close();
}

const [folder, count] = process.argv.slice(2);
void asAccount(FIRST_ACCOUNT, () => seed(folder!, Number(count)));
