import type { Word } from '../../transcript/manuscript';
import { endsSentence } from '../../transcript/manuscript';
import { FRAMES_PER_SECOND, mfcc } from './mfcc';
import {
  type VoiceStatistics,
  addFrame,
  dissimilarity,
  mergedStatistics,
  likelihoodUnder,
  shortened,
  emptyStatistics,
  spread,
  fromStored,
  toStored,
  type StoredVoice,
} from './voiceStatistics';

/** Weight of the penalty: higher finds fewer speakers. Clean synthetic and read voices come out right at 2 to 3. */
const WEIGHT = 2.5;
/** A run of words ends at such a pause, at the end of a sentence, or where the voice changes. */
const RUN_PAUSE_MS = 250;
/** Shorter ones do not found a speaker; they are given to one. */
const MIN_FOUNDER_FRAMES = 100;
const MIN_SIDE_FRAMES = 60;
/** Above so many stretches they are clustered in blocks, and then the blocks' voices. */
const BLOCK = 500;
/** What a change of speaker between two stretches costs, as log likelihood; more without a pause or an end of sentence. */
const CHANGE_COST = 12;
const CHANGE_INSIDE_COST = 45;
/** A speaker found by chance in a few sounds is none. */
const MIN_SPEAKER_FRAMES = 250;

/**
 * In the end voices are compared as if so many frames (18 s) of each had been heard: of minutes, one person's manner of
 * speaking tells itself from another of theirs. Between 1,500 and 2,200 nothing changed in trials.
 */
const COMPARED_FRAMES = 1800;

/** A voice of a recording with the name it has there. */
export type DiarizedVoice = { speaker: string; voice: StoredVoice };

const numberedSpeaker = (index: number): string => `Speaker ${index + 1}`;
/** Whether nobody has named this speaker yet. */
export const isNumbered = (speaker: string): boolean => /^Speaker \d+$/.test(speaker);

/** Some words said in one breath, and the voice that said them. */
type Run = { words: number; voice: VoiceStatistics; endsOpen: boolean };
type Cluster = { voice: VoiceStatistics; spread: number };

/** Collects the voices of a recording while it is recognised, and tells in the end who spoke which word. */
export class Diarizer {
  private readonly runs: Run[] = [];

  /**
   * @param samples 16 kHz mono of one recognised piece
   * @param words of this piece with times in milliseconds from its beginning
   */
  push(samples: Float32Array, words: readonly Word[]): void {
    if (words.length === 0) return;
    const rows = mfcc(samples);
    const voices = words.map((word) => {
      const voice = emptyStatistics();
      const from = Math.floor((word.startMs / 1000) * FRAMES_PER_SECOND);
      const to = Math.ceil((word.endMs / 1000) * FRAMES_PER_SECOND);
      for (let at = Math.max(0, from); at < to && at < rows.length; at++) addFrame(voice, rows[at]!);
      return voice;
    });
    let first = 0;
    for (let at = 1; at <= words.length; at++) {
      const [last, next] = [words[at - 1]!, words[at]];
      const breaks = !next || next.startMs - last.endMs >= RUN_PAUSE_MS || endsSentence(last.text);
      if (!breaks) continue;
      this.addRuns(voices.slice(first, at));
      first = at;
    }
  }

  /** Words said without a pause, cut where the voice changes. */
  private addRuns(words: readonly VoiceStatistics[]): void {
    const whole = words.reduce(mergedStatistics, emptyStatistics());
    const [cut, change] = likeliestChange(words, whole);
    if (cut !== null && change > 0) {
      this.addRuns(words.slice(0, cut));
      this.runs.at(-1)!.endsOpen = true;
      this.addRuns(words.slice(cut));
    } else this.runs.push({ words: words.length, voice: whole, endsOpen: false });
  }

  /**
   * @param count of speakers when it is known
   * @returns for each word pushed who says it, null for all where one person speaks, and the voices by name
   */
  find(count: number | null = null): { speakers: (string | null)[]; voices: DiarizedVoice[] } {
    const founders = this.runs.filter((r) => r.voice.frames >= MIN_FOUNDER_FRAMES).map((r) => r.voice);
    let voices = clustered(founders, count);
    if (count === null) {
      const large = voices.filter((v) => v.frames >= MIN_SPEAKER_FRAMES);
      voices = large.length ? oncePerPerson(large) : voices.slice(0, 1);
    }
    const byRun = voices.length > 1 ? this.likeliestPath(voices) : this.runs.map(() => 0);
    const order = [...new Set(byRun)];
    const isAlone = order.length < 2;
    return {
      speakers: this.runs.flatMap(({ words }, i) =>
        new Array<string | null>(words).fill(isAlone ? null : numberedSpeaker(order.indexOf(byRun[i]!))),
      ),
      voices: isAlone
        ? []
        : order.map((voice, i) => ({ speaker: numberedSpeaker(i), voice: toStored(voices[voice]!) })),
    };
  }

  /** The row of speakers with the highest likelihood when each change has its price (Viterbi 1967). */
  private likeliestPath(voices: readonly VoiceStatistics[]): number[] {
    const judges = voices.map(likelihoodUnder);
    let costs = voices.map(() => 0);
    const from: number[][] = [];
    for (const [i, run] of this.runs.entries()) {
      const price = this.runs[i - 1]?.endsOpen ? CHANGE_INSIDE_COST : CHANGE_COST;
      const cheapest = costs.indexOf(Math.min(...costs));
      const sources = costs.map((cost, v) => (costs[cheapest]! + price < cost ? cheapest : v));
      from.push(sources);
      costs = sources.map((source, v) => {
        const change = source === v ? 0 : price;
        // Frames that follow each other tell much the same: a quarter of them counts.
        const evidence = run.voice.frames ? judges[v]!(run.voice) * (run.voice.frames / 4) : 0;
        return costs[source]! + change - evidence;
      });
    }
    let voice = costs.indexOf(Math.min(...costs));
    const path: number[] = [];
    for (let i = this.runs.length - 1; i >= 0; i--) {
      path[i] = voice;
      voice = from[i]![voice]!;
    }
    return path;
  }
}

/** Where in a run the voice most likely changes, at the border of two words, and by how much that is likelier. */
function likeliestChange(words: readonly VoiceStatistics[], whole: VoiceStatistics): [number | null, number] {
  let best: [number | null, number] = [null, -Infinity];
  if (whole.frames < 2 * MIN_SIDE_FRAMES) return best;
  let before = emptyStatistics();
  for (let cut = 1; cut < words.length; cut++) {
    before = mergedStatistics(before, words[cut - 1]!);
    if (before.frames < MIN_SIDE_FRAMES || whole.frames - before.frames < MIN_SIDE_FRAMES) continue;
    const after = words.slice(cut).reduce(mergedStatistics, emptyStatistics());
    const change = dissimilarity(before, after, WEIGHT);
    if (change > best[1]) best = [cut, change];
  }
  return best;
}

/** Joins the two most alike until all are unlike, or until so many are left. */
function clustered(voices: readonly VoiceStatistics[], count: number | null): VoiceStatistics[] {
  if (voices.length > BLOCK) {
    const blocks: VoiceStatistics[] = [];
    for (let at = 0; at < voices.length; at += BLOCK) blocks.push(...clustered(voices.slice(at, at + BLOCK), null));
    return blocks.length < voices.length ? clustered(blocks, count) : blocks;
  }
  const clusters: (Cluster | null)[] = voices.map((voice) => ({ voice, spread: spread(voice) }));
  const far = clusters.map((a, i) => clusters.map((b, j) => (j < i ? between(a!, b!) : Infinity)));
  let left = clusters.length;
  while (left > (count ?? 1)) {
    let [nearest, a, b] = [Infinity, -1, -1];
    for (let i = 0; i < far.length; i++) {
      if (!clusters[i]) continue;
      for (let j = 0; j < i; j++) if (clusters[j] && far[i]![j]! < nearest) [nearest, a, b] = [far[i]![j]!, i, j];
    }
    if (count === null && nearest > 0) break;
    const voice = mergedStatistics(clusters[a]!.voice, clusters[b]!.voice);
    clusters[b] = { voice, spread: spread(voice) };
    clusters[a] = null;
    left--;
    for (const [i, other] of clusters.entries()) {
      if (!other || i === b) continue;
      far[Math.max(i, b)]![Math.min(i, b)] = between(clusters[b]!, other);
    }
  }
  return clusters
    .filter((c) => c !== null)
    .map((c) => c.voice)
    .sort((x, y) => y.frames - x.frames);
}

/** Joins voices that are unlike only because so much of each was heard. */
function oncePerPerson(voices: readonly VoiceStatistics[]): VoiceStatistics[] {
  const people = [...voices];
  for (;;) {
    let [nearest, a, b] = [0, -1, -1];
    const short = people.map((voice) => shortened(voice, COMPARED_FRAMES));
    for (let i = 0; i < people.length; i++) {
      for (let j = 0; j < i; j++) {
        const unlike = dissimilarity(short[i]!, short[j]!, WEIGHT);
        if (unlike < nearest) [nearest, a, b] = [unlike, i, j];
      }
    }
    if (a < 0) return people.sort((x, y) => y.frames - x.frames);
    people[b] = mergedStatistics(people[a]!, people[b]!);
    people.splice(a, 1);
  }
}

const between = (a: Cluster, b: Cluster): number => dissimilarity(a.voice, b.voice, WEIGHT, [a.spread, b.spread]);

/**
 * Among voices that have a name the one that is heard here, or null where none is alike enough.
 * @param known with the name of the person
 */
export function identifyVoice(voice: StoredVoice, known: readonly DiarizedVoice[]): string | null {
  const heard = fromStored(voice);
  let best: [string | null, number] = [null, 0];
  for (const { speaker, voice: other } of known) {
    const unlike = dissimilarity(heard, fromStored(other), WEIGHT);
    if (unlike < best[1]) best = [speaker, unlike];
  }
  return best[0];
}
