/** Fills a data folder with many filed recordings: seedMany FOLDER COUNT */
import { FIRST_ACCOUNT } from '@immeld/server/accounts/firstAccount';
import { openDatabase } from '@immeld/server/database';
import { Recording } from '@immeld/server/models/recording';

async function seed(folder: string, count: number): Promise<void> {
  const database = await openDatabase(folder);
  const accountId = FIRST_ACCOUNT;
  const long =
    'a title that goes on and on about the limes along the quay and does not end where anybody would expect it to end';
  await Recording.bulkCreate(
    Array.from({ length: count }, (_, i) => ({
      accountId,
      ...{
        title: `Memo ${i + 1}${i % 50 === 0 ? `, ${long}` : ''}`,
        fileName: `memo-${i}.m4a`,
        source: 'import' as const,
      },
      ...{
        mediaType: 'audio/mp4',
        soundFile: `none-${i}.m4a`,
        playbackFile: null,
        sha256: String(i).padStart(64, '0'),
      },
      ...{
        sizeBytes: 1000,
        durationMs: 60_000,
        startedAt: `2025-01-01T${String(i % 24).padStart(2, '0')}:00:00`,
        state: 'ready' as const,
      },
      ...{ problem: null, folderId: null, filedAt: new Date(), binnedAt: null, model: null, language: 'en' },
      ...{
        suggestion: { title: null, folderId: null, tags: [] },
        peaks: Array.from({ length: 200 }, (_v, k) => (k * i) % 100),
      },
    })),
  );
  await database.close();
}

const [folder, count] = process.argv.slice(2);
void seed(folder!, Number(count));
