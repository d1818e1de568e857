import type { PreparedNames } from './names/nameCandidates';
import { Recogniser } from './recogniser';
import { SampleWindow } from './sampleWindow';
import { FRAME_SAMPLES, FRAME_SECONDS, SpeechStream } from './speechDetector';
import { type TranscribedWord, type TranscriberModels, wordWithAbsoluteTime, voicedDuration } from './transcriber';

type LiveWord = TranscribedWord & { tokens: readonly number[] };
const plainWord = ({ text, startMs, endMs, confidence }: LiveWord): TranscribedWord => ({
  text,
  startMs,
  endMs,
  confidence,
});

export type LiveUpdate = {
  /** Words that will not change any more, since the last update. */
  fixed: TranscribedWord[];
  /** The words after them as they are heard now; each update replaces the ones before. */
  tentative: TranscribedWord[];
  /** Up to here the sound has been listened to. */
  heardMs: number;
};

const frames = (seconds: number): number => Math.round(seconds / FRAME_SECONDS);
const frameAt = (ms: number): number => Math.round(ms / 1000 / FRAME_SECONDS);
const msAt = (frame: number): number => Math.round(frame * FRAME_SECONDS * 1000);

/** The thresholds of the cutter, with shorter silences: a reader who waits is worse off than one small piece. */
const SPEECH_ON = 0.5;
const SPEECH_OFF = 0.35;
const PAUSE = frames(0.6);
const PADDING = frames(0.1);
/** From here on a stable beginning is fixed and left behind; the growing piece costs more with every second. */
const LONG_PIECE = frames(6);
/** Here it is cut whether the words are stable or not. */
const MAX_PIECE = frames(8);
/** Two decodings agree on words, and these lie so far back that they have never changed later in trials. */
const SETTLED_MS = 2000;
const SETTLED_IN_NEED_MS = 1000;
/** A piece begins with so much of what was fixed before, so that no sound is lost at the cut and the sense goes on. */
const CONTEXT_MS = 2000;
/** A pause longer than this ends the sense. */
const MAX_GAP_MS = 1000;
/** A further decoding waits for so much more speech. */
const NEW_SPEECH = frames(0.45);

/**
 * Text while somebody speaks. The growing piece since the last pause is decoded again and again; what two decodings
 * agree on is fixed, so that the piece stays short. Sound that comes faster than it can be recognised waits.
 *
 * Method: incremental recognition by local agreement of successive hypotheses (Liu, Spanakis, Niehues 2020,
 * "Low-latency sequence-to-sequence speech recognition and translation by partial hypothesis selection").
 */
export class LiveTranscriber {
  private readonly detector: SpeechStream;
  private readonly recogniser: Recogniser;
  private readonly sound = new SampleWindow();
  private readonly speech = new SampleWindow();
  private waiting: Float32Array[] = [];
  private rest = new Float32Array(0);
  /** Frames looked at so far. */
  private cursor = 0;
  /** `known` are words at its beginning that were fixed before. */
  private piece: { start: number; lastSpeech: number; decodedTo: number; known: LiveWord[] } | null = null;
  private before: LiveWord[] = [];
  /** The last words that were fixed, as far as they can be the beginning of the next piece. */
  private fixed: LiveWord[] = [];
  private hasEnded = false;

  /** @param names that a person has listed: heard where a piece ends at a pause, once, as each costs time */
  constructor(
    models: TranscriberModels,
    private readonly names: PreparedNames = [],
  ) {
    this.detector = new SpeechStream(models.runtime, models.detector);
    this.recogniser = new Recogniser(models);
  }

  /** Adds sound: 16 kHz mono in [-1, 1], any length. Costs nothing; the work is done in `advance`. */
  push(samples: Float32Array): void {
    this.waiting.push(samples);
  }

  /** No more sound comes: the next calls of `advance` fix what is left. */
  end(): void {
    this.hasEnded = true;
  }

  /**
   * Works on what has come in, up to one decoding.
   * @returns what changed, or null when there is nothing to do until more sound comes
   */
  async advance(): Promise<LiveUpdate | null> {
    await this.detect();
    for (; this.cursor < this.speech.end; this.cursor++) {
      this.look(this.cursor);
      const { piece } = this;
      if (!piece) continue;
      if (this.cursor - piece.lastSpeech >= PAUSE) return this.closePiece();
      if (this.cursor - piece.start >= MAX_PIECE) return this.grownPiece(true);
    }
    this.forget();
    const { piece } = this;
    if (!piece) return null;
    if (this.hasEnded) return this.closePiece();
    return piece.lastSpeech - piece.decodedTo >= NEW_SPEECH ? this.grownPiece(false) : null;
  }

  private async detect(): Promise<void> {
    const parts = [this.rest, ...this.waiting];
    this.waiting = [];
    const length = parts.reduce((n, p) => n + p.length, 0);
    const whole = this.hasEnded ? Math.ceil(length / FRAME_SAMPLES) : Math.floor(length / FRAME_SAMPLES);
    const joined = new Float32Array(Math.max(length, whole * FRAME_SAMPLES));
    let at = 0;
    for (const part of parts) {
      joined.set(part, at);
      at += part.length;
    }
    this.rest = joined.slice(whole * FRAME_SAMPLES);
    if (whole === 0) return;
    const samples = joined.subarray(0, whole * FRAME_SAMPLES);
    this.sound.append(samples);
    this.speech.append(await this.detector.push(samples));
  }

  private look(frame: number): void {
    const probability = this.speech.at(frame);
    if (!this.piece && probability >= SPEECH_ON) {
      const last = this.fixed.at(-1);
      const isNear = last && msAt(frame) - last.endMs <= MAX_GAP_MS;
      const known = isNear ? this.contextBefore(last.endMs) : [];
      const start = Math.max(0, frame - PADDING, last ? frameAt(last.endMs) : 0);
      this.piece = {
        start: known[0] ? this.startOf(known[0]) : Math.min(start, frame),
        lastSpeech: frame,
        decodedTo: frame,
        known,
      };
    } else if (this.piece && probability >= SPEECH_OFF) this.piece.lastSpeech = frame;
  }

  private async closePiece(): Promise<LiveUpdate> {
    const end = Math.min(this.speech.end, this.piece!.lastSpeech + 1 + PADDING);
    const words = await this.decode(end, this.names);
    this.piece = null;
    this.before = [];
    this.keep(words);
    return { fixed: words.map(plainWord), tentative: [], heardMs: msAt(this.cursor) };
  }

  private async grownPiece(mustCut: boolean): Promise<LiveUpdate> {
    const piece = this.piece!;
    const end = Math.min(this.speech.end, this.cursor);
    const words = await this.decode(end);
    piece.decodedTo = piece.lastSpeech;
    const agreed = agreement(words, this.before);
    this.before = words;
    const heardMs = msAt(end);
    if (!mustCut && end - piece.start < LONG_PIECE) {
      return { fixed: [], tentative: words.map(plainWord), heardMs };
    }

    const settled = (most: number, agoMs: number) => {
      let count = 0;
      while (count < most && words[count]!.endMs <= heardMs - agoMs) count++;
      return count;
    };
    let count = settled(agreed, SETTLED_MS);
    if (!count && mustCut) count = settled(words.length, SETTLED_IN_NEED_MS);
    if (!count) {
      // Eight seconds without a word: not speech. The last second may hold the beginning of one.
      if (mustCut) Object.assign(piece, { start: end - frames(1), known: [] });
      return { fixed: [], tentative: words.map(plainWord), heardMs };
    }
    const { kept, cut } = this.bestCut(words, count, end);
    const fixed = words.slice(0, kept);
    this.before = words.slice(kept);
    this.keep(fixed);
    piece.known = this.contextBefore(msAt(cut));
    piece.start = Math.max(piece.known[0] ? this.startOf(piece.known[0]) : cut, piece.start + 1);
    return { fixed: fixed.map(plainWord), tentative: this.before.map(plainWord), heardMs };
  }

  /** Among the ends of the last settled words, the one where speech is least likely: there a cut hurts least. */
  private bestCut(words: readonly TranscribedWord[], settled: number, end: number): { kept: number; cut: number } {
    let best = { kept: settled, cut: frameAt(words[settled - 1]!.endMs), speech: Infinity };
    for (let kept = settled; kept > Math.max(0, settled - 5); kept--) {
      const boundary = frameAt(words[kept]?.startMs ?? words[kept - 1]!.endMs);
      for (let frame = boundary - 4; frame <= boundary + 1 && frame < end; frame++) {
        const speech = this.speech.at(frame - 1) + this.speech.at(frame) + this.speech.at(frame + 1);
        if (speech < best.speech - 0.01) best = { kept, cut: frame, speech };
      }
    }
    return best;
  }

  /** The words of the piece up to a frame, without those that were fixed before. */
  private async decode(end: number, names: PreparedNames = []): Promise<LiveWord[]> {
    const { start, known } = this.piece!;
    const samples = this.sound.slice(start * FRAME_SAMPLES, end * FRAME_SAMPLES);
    const hint = { known: known.flatMap((w) => w.tokens), draft: this.before.flatMap((w) => w.tokens) };
    const voiced = voicedDuration(this.speech.slice(start, end));
    const { words, isDoubtful } = await this.recogniser.recognise(samples, voiced, { hint, names });
    if (isDoubtful) return [];
    const found = words.slice(known.length).map((w) => ({ ...wordWithAbsoluteTime(w, msAt(start)), tokens: w.tokens }));
    return known.length ? found : this.joined(found);
  }

  /** A piece that was cut inside a sentence begins with a capital that nobody meant, unless it had one before. */
  private joined(words: LiveWord[]): LiveWord[] {
    const [first, ...others] = words;
    const last = this.fixed.at(-1);
    const isInSentence = last && !/[.?!]["']?$/.test(last.text);
    if (!first || !isInSentence || /^I\b/.test(first.text)) return words;
    const hadCapital = this.before[0]?.text.toLowerCase() === first.text.toLowerCase() && this.before[0];
    const text = hadCapital ? hadCapital.text : first.text.charAt(0).toLowerCase() + first.text.slice(1);
    return [{ ...first, text }, ...others];
  }

  private keep(words: readonly LiveWord[]): void {
    if (!words.length) return;
    const all = [...this.fixed, ...words];
    this.fixed = all.filter((w, i) => w.startMs >= all.at(-1)!.endMs - 2 * CONTEXT_MS || i === all.length - 1);
  }

  /** The fixed words that lie in the seconds before this one. */
  private contextBefore(ms: number): LiveWord[] {
    return this.fixed.filter((w) => w.startMs >= ms - CONTEXT_MS);
  }

  private startOf(word: LiveWord): number {
    return Math.max(0, frameAt(word.startMs) - 2);
  }

  private forget(): void {
    const from = (this.piece?.start ?? this.cursor) - PADDING - frames((CONTEXT_MS + MAX_GAP_MS) / 1000 + 1);
    this.sound.dropBefore(from * FRAME_SAMPLES);
    this.speech.dropBefore(from);
  }
}

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}']+/gu, '');

/** How many words at the beginning two decodings have in common; the last of them may still be growing. */
function agreement(now: readonly TranscribedWord[], before: readonly TranscribedWord[]): number {
  let count = 0;
  while (count < now.length && count < before.length && plain(now[count]!.text) === plain(before[count]!.text)) count++;
  return count;
}
