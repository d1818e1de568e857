import { type BeamRules, type Step, decodeWithNames, nameTrie } from './names/nameBeam';
import {
  MAX_DIFFERENT_UNLISTED,
  type NameCandidate,
  type PreparedNames,
  bareWord,
  hiddenNames,
  nameCandidates,
} from './names/nameCandidates';
import {
  type Decoded,
  Decoder,
  type Hint,
  type Known,
  MAX_TOKENS_PER_SECOND,
  NO_HINT,
  type RecognitionModels,
  argMax,
} from './decoder';
import { isSameText, isUnmarked, placesForMark } from './punctuation';
import { floatsOf } from './session';
import { END_TOKEN, START_TOKEN } from './tokenizer';
import { FRAME_HOP_SECONDS, alignTokens, snapToPauses } from './wordTimes';

const SAMPLE_RATE_HZ = 16000;

const MIN_PIECE_SECONDS = 0.25;
/** Below this mean log probability of its tokens a passage is more likely noise than speech. */
const DOUBTFUL_MEAN_LOG_PROBABILITY = -0.6;
/** The median offset over the timed words of the demo recordings; see docs/benchmarks.md. */
const WORD_START_OFFSET_SECONDS = 0.03;

/** A word with times in seconds from the beginning of the piece and the smallest probability of its tokens, 0 to 1. */
export type RecognisedWord = {
  text: string;
  startSeconds: number;
  endSeconds: number;
  confidence: number;
  tokens: readonly number[];
  /** What else it may have been, likeliest first; only asked for, and only for doubtful words. */
  others?: readonly string[];
};

export type RecognisedPiece = { words: RecognisedWord[]; meanLogProbability: number; isDoubtful: boolean };

/** How a piece is recognised; nothing of it is needed. */
export type RecognitionOptions = {
  hint?: Hint;
  /** Names that a person has listed: they are put where they sound right and the model finds them likely enough. */
  names?: PreparedNames;
  /** Names that are known without being listed: tried where the words are unsure, or sound the same. */
  known?: PreparedNames;
  /** Whether doubtful words come with what else they may have been. */
  wantsOthers?: boolean;
};

/** Words less sure than this come with others, of which each is at least so likely where it parts from the word. */
const DOUBTFUL_BELOW = 0.6;
const MIN_LIKELY_OTHER = 0.04;
const MAX_OTHERS = 3;
const MAX_OTHER_TOKENS = 8;

/** Wider finds hardly more; a bonus above 4 puts names where nobody says them. Tuned by `npm run bench`. */
const NAME_BEAM: BeamRules = { width: 4, bonusPerToken: 4, mostBonus: 16 };
/** How many places are tried with a name in one piece; each costs one pass of the decoder. */
const MAX_NAMES_TRIED = 8;
/** Log probability that a listed name may be less likely than what was recognised; tuned by `npm run bench`. */
const LISTED: NameRules = { bonusPerToken: 4, maxBonus: 16, maxTried: MAX_NAMES_TRIED, isListed: true };
/** A name that nobody listed is worth half, and fewer places are tried. */
const KNOWN: NameRules = { bonusPerToken: 2, maxBonus: 8, maxTried: 2, isListed: false };

/** So many words may have been heard where a listed name was said. */
const MAX_WORDS_IN_NAME = 3;

/** Common words have fewer tokens. */
const MIN_RARE_TOKENS = 3;

/** `bonusPerToken` and `maxBonus` are log probabilities. */
type NameRules = { bonusPerToken: number; maxBonus: number; maxTried: number; isListed: boolean };

const EMPTY: RecognisedPiece = { words: [], meanLogProbability: 0, isDoubtful: false };

/** Runs the encoder-decoder over one piece of sound: greedy decoding with guards, word times and confidence. */
export class Recogniser {
  private readonly decoder: Decoder;

  constructor(private readonly models: RecognitionModels) {
    this.decoder = new Decoder(models);
  }

  /**
   * @param samples 16 kHz mono in [-1, 1], at most 30 s (longer pieces lose words)
   * @param isSpeechAt whether speech was detected at this second of the piece; guides the word times
   */
  async recognise(
    samples: Float32Array,
    isSpeechAt: (second: number) => boolean,
    { hint = NO_HINT, names = [], known = [], wantsOthers = false }: RecognitionOptions = {},
  ): Promise<RecognisedPiece> {
    const seconds = samples.length / SAMPLE_RATE_HZ;
    if (seconds < MIN_PIECE_SECONDS) return EMPTY;
    const heard = await this.decoder.listen(samples);
    const plainly = await this.decoder.decode(heard, seconds, hint);
    if (plainly.tokens.length === 0) return EMPTY;
    const decoded = hint === NO_HINT ? await this.withMarks(heard, plainly, seconds) : plainly;
    const piece = this.describe(decoded, seconds, isSpeechAt);
    const listed =
      names.length === 0
        ? decoded
        : await this.rescoreWithNames(heard, decoded, piece, seconds, names, isSpeechAt, hint);
    const heardSo = listed === decoded ? piece : this.describe(listed, seconds, isSpeechAt);
    const best =
      known.length === 0
        ? listed
        : await this.withNames(heard, listed, heardSo.words, this.firstAfter(hint), known, KNOWN);
    // A listed name is less likely than what was recognised; that makes no nonsense of the rest.
    const found = {
      ...(best === listed ? heardSo : this.describe(best, seconds, isSpeechAt)),
      isDoubtful: piece.isDoubtful,
    };
    return wantsOthers ? { ...found, words: await this.withOthers(heard, best, found.words) } : found;
  }

  /** The same words with marks and capitals, where they came without any; as they were where that changes them. */
  private async withMarks(heard: Known, decoded: Decoded, seconds: number): Promise<Decoded> {
    const { tokenizer } = this.models;
    const textOf = (tokens: readonly number[]) => tokenizer.words(tokens).map((w) => w.text);
    const before = textOf(decoded.tokens);
    if (!isUnmarked(before)) return decoded;
    const inputs = [START_TOKEN, ...decoded.tokens];
    const logits = floatsOf(await this.decoder.step(heard, inputs), 'logits');
    for (const { at, mark } of placesForMark(decoded.tokens, logits, logits.length / inputs.length, tokenizer)) {
      const known = [...decoded.tokens.slice(0, at), mark];
      const marked = await this.decoder.decode(heard, seconds, { known, draft: [] });
      if (isSameText(before, textOf(marked.tokens))) return marked;
    }
    return decoded;
  }

  /** The first word that may change: those that stand fast stay as they are. */
  private firstAfter({ known }: Hint): number {
    return this.models.tokenizer.words(known).length;
  }

  private async rescoreWithNames(
    heard: Known,
    decoded: Decoded,
    piece: RecognisedPiece,
    seconds: number,
    names: PreparedNames,
    isSpeechAt: (second: number) => boolean,
    hint: Hint,
  ): Promise<Decoded> {
    const first = this.firstAfter(hint);
    const again = await this.hearAgain(heard, decoded, piece.words, first, seconds, names);
    const words = again === decoded ? piece.words : this.describe(again, seconds, isSpeechAt).words;
    return this.withNames(heard, again, words, first, names, LISTED);
  }

  /**
   * Doubtful words with what else they may have been: the other tokens that were likely where the word was least sure,
   * each carried on greedily to the end of its word.
   */
  private async withOthers(
    heard: Known,
    { tokens, logProbabilities }: Decoded,
    words: readonly RecognisedWord[],
  ): Promise<RecognisedWord[]> {
    if (words.every((w) => w.confidence >= DOUBTFUL_BELOW)) return [...words];
    const { tokenizer } = this.models;
    const inputs = [START_TOKEN, ...tokens];
    const result = await this.decoder.step(heard, inputs);
    const logits = floatsOf(result, 'logits');
    const perToken = logits.length / inputs.length;
    const spoken = tokenizer.words(tokens);
    const found: RecognisedWord[] = [];
    for (const [i, word] of words.entries()) {
      if (word.confidence >= DOUBTFUL_BELOW) {
        found.push(word);
        continue;
      }
      const { firstToken, lastToken } = spoken[i]!;
      let at = firstToken;
      for (let t = firstToken; t <= lastToken; t++) if (logProbabilities[t]! < logProbabilities[at]!) at = t;
      const beginning = tokens.slice(firstToken, at);
      const past = this.decoder.nextPast(result, at + 1);
      const others = new Set<string>();
      for (const token of likelyOnes(logits.subarray(at * perToken), tokenizer.size, tokens[at]!)) {
        const text = await this.completeWord(heard, past, beginning, token);
        if (text && plainOf(text) !== plainOf(word.text)) others.add(text);
      }
      found.push(others.size ? { ...word, others: [...others].slice(0, MAX_OTHERS) } : word);
    }
    return found;
  }

  /** The word that begins so, carried on greedily; null where it is none. */
  private async completeWord(
    heard: Known,
    from: Known,
    beginning: readonly number[],
    token: number,
  ): Promise<string | null> {
    const { tokenizer } = this.models;
    const word = [...beginning];
    let past = from;
    let next = token;
    if (word.length === 0 && !tokenizer.beginsWord(next)) return null;
    const ends = () => next <= END_TOKEN || (word.length > 0 && tokenizer.endsWordBefore(next));
    while (!ends() && word.length < MAX_OTHER_TOKENS) {
      word.push(next);
      const result = await this.decoder.step(heard, [next], past);
      [next] = argMax(floatsOf(result, 'logits'), tokenizer.size);
      past = this.decoder.nextPast(result, null);
    }
    const text = tokenizer
      .words(word)
      .map((w) => w.text)
      .join(' ');
    return /[\p{L}\p{N}]/u.test(text) ? text.replace(/(?<![^\p{L}\p{N}])[^\p{L}\p{N}]+$/u, '') : null;
  }

  /** Where listed names may be hidden in doubtful words, the piece is heard again from there with these in mind. */
  private async hearAgain(
    heard: Known,
    decoded: Decoded,
    words: readonly RecognisedWord[],
    first: number,
    seconds: number,
    names: PreparedNames,
  ): Promise<Decoded> {
    const { tokenizer } = this.models;
    const hidden = hiddenNames(words.slice(first), names);
    if (!hidden) return decoded;
    const spoken = tokenizer.words(decoded.tokens);
    const from = spoken[first + Math.max(0, hidden.from - 2)]!.firstToken;
    const run: Step<Known> = async (tokens, past) => {
      const result = await this.decoder.step(heard, tokens, past ?? undefined);
      const logits = floatsOf(result, 'logits');
      return { logits: logits.subarray(-logits.length / tokens.length), past: this.decoder.nextPast(result, null) };
    };
    const tokens = await decodeWithNames(
      [START_TOKEN, ...decoded.tokens.slice(0, from)],
      run,
      nameTrie(hidden.names, (piece) => tokenizer.idOf(piece)),
      NAME_BEAM,
      {
        ...{ end: END_TOKEN, size: tokenizer.size, most: Math.ceil(seconds * MAX_TOKENS_PER_SECOND) + 2 },
        isWordStart: (token) => token === END_TOKEN || tokenizer.endsWordBefore(token),
      },
    );
    if (!tokens) return decoded;
    const again = tokenizer.words(tokens);
    const count = again.filter((w) => hidden.names.includes(bareWord(w.text))).length;
    // A name must not be bought with a sentence: what ends early is worth more in a search than it should be.
    const isWhole = again.length >= spoken.length - MAX_WORDS_IN_NAME * (count + 1);
    return count && isWhole ? this.decoder.score(heard, tokens) : decoded;
  }

  /**
   * Listed names in the place of words that sound like them, where the model, asked for the likelihood of the whole
   * piece with the name in it, does not lose more than the list is worth.
   */
  private async withNames(
    heard: Known,
    decoded: Decoded,
    words: readonly RecognisedWord[],
    first: number,
    names: PreparedNames,
    rules: NameRules,
  ): Promise<Decoded> {
    const { tokenizer } = this.models;
    const spoken = tokenizer.words(decoded.tokens).slice(first);
    let best = decoded;
    const taken: (NameCandidate & { shift: number })[] = [];
    for (const candidate of nameCandidates(words.slice(first), names, rules.isListed).slice(0, rules.maxTried)) {
      if (taken.some((t) => candidate.from < t.to && t.from < candidate.to)) continue;
      const opening = spoken[candidate.from]!;
      const closing = spoken[candidate.to - 1]!;
      const before = /^[^\p{L}\p{N}]*/u.exec(opening.text)![0];
      const after = /(?:['’]s)?(?<![^\p{L}\p{N}])[^\p{L}\p{N}]*$/u.exec(closing.text)![0];
      const name = tokenizer.encode(before + candidate.text + after);
      // What is taken already stands further left or right with another number of tokens.
      const shift = taken.filter((t) => t.to <= candidate.from).reduce((sum, t) => sum + t.shift, 0);
      const [from, to] = [opening.firstToken + shift, closing.lastToken + 1 + shift];
      const tokens = [...best.tokens.slice(0, from), ...name, ...best.tokens.slice(to)];
      const tried = await this.decoder.score(heard, tokens);
      // A rare spelling that sounds the same is the name, listed or not.
      const isSame = candidate.distance <= MAX_DIFFERENT_UNLISTED && name.length >= MIN_RARE_TOKENS;
      const { bonusPerToken, maxBonus } = isSame ? LISTED : rules;
      const worth = Math.min(bonusPerToken * name.length, maxBonus) * (1 - candidate.distance);
      if (likelihood(tried, from) + worth <= likelihood(best, from)) continue;
      best = tried;
      taken.push({ ...candidate, shift: name.length - (to - from) });
    }
    return best;
  }

  private describe(decoded: Decoded, seconds: number, isSpeechAt: (second: number) => boolean): RecognisedPiece {
    const isSpeech = (frame: number) => isSpeechAt(frame * FRAME_HOP_SECONDS);
    const offset = this.models.alignment?.offsetSeconds ?? WORD_START_OFFSET_SECONDS;
    const frames = alignTokens(decoded.attention, isSpeech);
    const spoken = this.models.tokenizer.words(decoded.tokens);
    const words = spoken.map((word): RecognisedWord => {
      const logs = decoded.logProbabilities.slice(word.firstToken, word.lastToken + 1);
      const reach = { first: frames[word.firstToken]!.first, last: frames[word.lastToken]!.last };
      const { first, last } = snapToPauses(reach, isSpeech);
      const start = first * FRAME_HOP_SECONDS + offset;
      const end = (last + 1) * FRAME_HOP_SECONDS + offset;
      return {
        text: word.text,
        startSeconds: Math.min(seconds, Math.max(0, start)),
        endSeconds: Math.min(seconds, Math.max(0, end)),
        confidence: Math.exp(Math.min(...logs)),
        tokens: decoded.tokens.slice(word.firstToken, word.lastToken + 1),
      };
    });
    words.forEach((word, i) => {
      const next = words[i + 1];
      if (next && next.startSeconds < word.endSeconds) word.endSeconds = Math.max(word.startSeconds, next.startSeconds);
    });
    const logs = decoded.logProbabilities;
    const meanLogProbability = logs.reduce((a, b) => a + b, 0) / logs.length;
    return { words, meanLogProbability, isDoubtful: meanLogProbability < DOUBTFUL_MEAN_LOG_PROBABILITY };
  }
}

/** Log probability of the tokens from one on, the end included. */
const likelihood = ({ logProbabilities }: Decoded, from: number): number =>
  logProbabilities.slice(from).reduce((a, b) => a + b, 0);

const plainOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** Tokens other than the chosen one that were likely there, likeliest first. */
function likelyOnes(logits: Float32Array, size: number, chosen: number): number[] {
  const [top, topLog] = argMax(logits, size);
  const least = logits[top]! - topLog + Math.log(MIN_LIKELY_OTHER);
  const likely: number[] = [];
  for (let token = 0; token < size; token++) if (logits[token]! >= least && token !== chosen) likely.push(token);
  return likely.sort((a, b) => logits[b]! - logits[a]!).slice(0, MAX_OTHERS + 1);
}
