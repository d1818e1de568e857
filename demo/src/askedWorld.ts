import fs from 'node:fs';
import path from 'node:path';
import type { DemoRecording } from '@immeld/core/find/evaluation/askDemoWorld';
import { WordVectors } from '@immeld/core/find/wordVectors';
import { passagesFrom, DEFAULT_PASSAGE_RULES, speakersOf } from '@immeld/core/transcript/passages';
import type { Passage, Word } from '@immeld/core/transcript/manuscript';
import { wordErrors } from '@immeld/core/transcript/wordErrorRate';
import { projectRoot } from '@immeld/server/projectRoot';
import { loadWorld, startOf } from './world';

type SaidWord = { speaker: string; word: string; startMs: number; endMs: number };

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

const PEOPLE: Record<string, string> = {
  Bram: 'Bram Vantongeren',
  Ottoline: 'Ottoline Reyes',
  Jun: 'Jun Fairweather',
  Malmquist: 'Idris Malmquist',
  Petra: 'Petra Sund',
};

/** The recordings of the demo world as they were recognised; those that are recognised later, as they are in their script. */
export function recordingsToAsk(today: Date): DemoRecording[] {
  const demo = path.join(projectRoot(), 'demo');
  return loadWorld(path.join(demo, 'world')).map((script) => {
    const said = JSON.parse(
      fs.readFileSync(path.join(demo, 'expected', `${script.id}.words.json`), 'utf8'),
    ) as SaidWord[];
    const recognised = path.join(demo, 'expected', `${script.id}.transcript.json`);
    const written = script.lines.flatMap((l) => l.text.split(/\s+/));
    const heard: Passage[] = fs.existsSync(recognised)
      ? (JSON.parse(fs.readFileSync(recognised, 'utf8')) as { passages: Passage[] }).passages
      : passagesFrom(
          said.map((w, i): Word => ({ startMs: w.startMs, endMs: w.endMs, text: written[i] ?? w.word, confidence: 1 })),
        );
    const passages = passagesFrom(
      heard.flatMap((p) => p.words),
      DEFAULT_PASSAGE_RULES,
      speakersOf(heard),
    ).map((p) => {
      const number = /^Speaker (\d+)$/.exec(p.speaker ?? '')?.[1];
      const name = number && script.speakers[Number(number) - 1];
      return name ? { ...p, speaker: PEOPLE[name] ?? name } : p;
    });
    const voices = new Set(script.lines.map((l) => l.speaker));
    return {
      id: script.id,
      title: script.title ?? '',
      saidAt: startOf(script, today).slice(0, 16),
      isMemo: voices.size === 1 && voices.has('Tamsin'),
      people: [...voices].flatMap((v) => PEOPLE[v] ?? []),
      passages,
      timesOf: timesIn(script.lines.map((l) => l.text).join(' '), passages),
    };
  });
}

/** Where the words of a script were recognised, by aligning the two. */
function timesIn(text: string, passages: readonly Passage[]): DemoRecording['timesOf'] {
  const script = text.split(/\s+/).map(plain);
  const heard = passages.flatMap((p) => p.words);
  const partner = new Map<number, Word>();
  for (const { reference, hypothesis } of wordErrors(
    script,
    heard.map((w) => plain(w.text)),
  ).pairs) {
    if (reference !== null && hypothesis !== null) partner.set(reference, heard[hypothesis]!);
  }
  return (phrase) => {
    const wanted = phrase.split(/\s+/).map(plain);
    const at = script.findIndex((_, i) => wanted.every((w, k) => script[i + k] === w));
    const found = at < 0 ? [] : wanted.flatMap((_, k) => partner.get(at + k) ?? []);
    return found.length ? { startMs: found[0]!.startMs, endMs: found.at(-1)!.endMs } : null;
  };
}

/** The word vectors that ship with the server. */
export function shippedVectors(): WordVectors {
  const folder = path.join(projectRoot(), 'server', 'find', 'vectors');
  const words = fs.readFileSync(path.join(folder, 'words.txt'), 'utf8').trimEnd().split('\n');
  const bytes = fs.readFileSync(path.join(folder, 'vectors.bin'));
  return new WordVectors(words, new Int8Array(bytes.buffer, bytes.byteOffset, bytes.length));
}
