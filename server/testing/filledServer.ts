import { Recording } from '../models/recording';
import { PassageRow } from '../models/passage';
import { asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';

export type Said = {
  text: string;
  title?: string | null;
  startedAt?: string;
  source?: 'speak' | 'import';
  speaker?: string | null;
  suggestion?: Partial<Recording['suggestion']>;
  isFiled?: boolean;
};

let counter = 0;

/** Puts a recording with what was said into the database, as if it had been recognised. @returns its id */
export function say({
  text,
  title = null,
  startedAt,
  source = 'speak',
  speaker = null,
  suggestion = {},
  isFiled = false,
}: Said): Promise<string> {
  return asAccount(FIRST_ACCOUNT, async () => {
    const number = counter++;
    const recording = await Recording.create({
      ...{ title, fileName: `said-${number}.m4a`, source, mediaType: 'audio/mp4', soundFile: `none-${number}.m4a` },
      ...{ playbackFile: null, sha256: String(number).padStart(64, 'f'), sizeBytes: 1, durationMs: 60_000 },
      ...{ startedAt: startedAt ?? `2026-03-0${1 + (number % 9)}T09:00:00`, state: 'ready', problem: null },
      ...{
        folderId: null,
        filedAt: isFiled ? new Date() : null,
        binnedAt: null,
        peaks: [],
        model: null,
        language: 'en',
      },
      suggestion: { title: null, folderId: null, tags: [], ...suggestion },
    });
    const sentences = text.split(/(?<=[.?!])\s+/);
    let at = 0;
    for (const [position, sentence] of sentences.entries()) {
      const words = sentence
        .split(/\s+/)
        .map((word) => ({ startMs: at, endMs: (at += 300), text: word, confidence: 0.9 }));
      await PassageRow.create({
        ...{ recordingId: recording.id, position, startMs: words[0]!.startMs, endMs: at, speaker },
        ...{ startsParagraph: true, words, text: sentence },
      });
    }
    return recording.id;
  });
}
