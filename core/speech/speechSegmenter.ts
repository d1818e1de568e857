/**
 * Cuts a sound into pieces for the recogniser. Speech begins and ends by two thresholds (hysteresis); neighbours
 * with short gaps are joined, because single short pieces are understood worse; nothing is longer than `longest`.
 */
export type SegmentationRules = {
  /** Speech begins at this probability and goes on down to `off`. */
  on: number;
  off: number;
  /** All in seconds. */
  silence: number;
  shortestSpeech: number;
  padding: number;
  joinGap: number;
  longest: number;
  frame: number;
};

export const DEFAULT_SEGMENTATION_RULES: SegmentationRules = {
  on: 0.5,
  off: 0.35,
  silence: 0.3,
  shortestSpeech: 0.15,
  padding: 0.1,
  joinGap: 0.8,
  longest: 20,
  frame: 0.032,
};

/** A stretch of sound, in frames, `end` exclusive. */
export type Span = { start: number; end: number };

/** Takes probabilities as they come and gives out pieces as soon as they are complete. */
export class SpeechSegmenter {
  private readonly probabilities: number[] = [];
  /** Number of the first frame still kept. */
  private base = 0;
  private next = 0;
  private open: { start: number; lastSpeech: number } | null = null;
  private waiting: Span | null = null;
  private finished: Span[] = [];
  private lastEnd = 0;

  constructor(private readonly rules: SegmentationRules = DEFAULT_SEGMENTATION_RULES) {}

  /** Frame from which sound has to be kept because a coming piece may begin there. */
  get neededFrom(): number {
    const padding = this.frames(this.rules.padding);
    const start = this.waiting?.start ?? (this.open ? this.open.start - padding : this.next - padding - 1);
    return Math.max(0, start);
  }

  /** The pieces completed by these further frames. */
  push(probabilities: ArrayLike<number>): Span[] {
    for (let i = 0; i < probabilities.length; i++) this.frame(probabilities[i]!);
    this.forget();
    return this.take();
  }

  /** Ends the sound; gives out what is left. */
  finish(): Span[] {
    this.closeRegion();
    if (this.waiting) this.finished.push(this.waiting);
    this.waiting = null;
    return this.take();
  }

  private frames(seconds: number): number {
    return Math.round(seconds / this.rules.frame);
  }

  private frame(p: number): void {
    const now = this.next++;
    this.probabilities.push(p);
    if (!this.open) {
      if (p >= this.rules.on) this.open = { start: now, lastSpeech: now };
    } else if (p >= this.rules.off) {
      this.open.lastSpeech = now;
      if (now - this.open.start >= this.frames(this.rules.longest)) this.splitRegion();
    } else if (now - this.open.lastSpeech >= this.frames(this.rules.silence)) this.closeRegion();
    const gap = this.frames(this.rules.joinGap);
    if (this.waiting && !this.open && now - this.waiting.end > gap) {
      this.finished.push(this.waiting);
      this.waiting = null;
    }
  }

  /** Speech without a pause for too long: cut where speech is least likely, in the later part. */
  private splitRegion(): void {
    const { start } = this.open!;
    const longest = this.frames(this.rules.longest);
    let cut = start + longest - 1;
    let least = Infinity;
    for (let i = start + Math.floor(longest * 0.4); i < start + longest - 2; i++) {
      let sum = 0;
      for (let d = -2; d <= 2; d++) sum += this.probabilities[i + d - this.base] ?? 1;
      if (sum < least) [least, cut] = [sum, i];
    }
    this.addRegion(start, cut, { padEnd: false });
    this.lastEnd = cut;
    this.open!.start = cut;
  }

  private closeRegion(): void {
    const region = this.open;
    this.open = null;
    if (!region) return;
    const end = region.lastSpeech + 1;
    if (end - region.start < this.frames(this.rules.shortestSpeech) && region.start !== this.lastEnd) return;
    this.addRegion(region.start, end, { padEnd: true });
  }

  private addRegion(start: number, end: number, { padEnd }: { padEnd: boolean }): void {
    const padding = this.frames(this.rules.padding);
    const span: Span = {
      start: Math.max(this.lastEnd, start - padding, 0),
      end: padEnd ? end + padding : end,
    };
    this.lastEnd = span.end;
    const { waiting } = this;
    const joins =
      waiting &&
      span.start - waiting.end <= this.frames(this.rules.joinGap) &&
      span.end - waiting.start <= this.frames(this.rules.longest);
    if (joins) waiting.end = span.end;
    else {
      if (waiting) this.finished.push(waiting);
      this.waiting = span;
    }
  }

  private take(): Span[] {
    const spans = this.finished;
    this.finished = [];
    return spans;
  }

  private forget(): void {
    const keepFrom = Math.min(this.open?.start ?? this.next, this.next) - 4;
    const drop = keepFrom - this.base;
    if (drop > 1000) {
      this.probabilities.splice(0, drop);
      this.base = keepFrom;
    }
  }
}
