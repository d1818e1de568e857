import type { NumeralKind } from '../../contract/numeralKinds';

export type Token = { before: string; core: string; after: string; word: string };
export type Figure = { end: number; text: string };

/** What a person has typed stays as it was typed. */
export const NOT_SAID: Token = { before: '|', core: '', after: '|', word: '' };

export function tokenOf(text: string): Token {
  const before = /^[^\p{L}\p{N}$£€-]*/u.exec(text)![0];
  const rest = text.slice(before.length);
  const after = /(?<![^\p{L}\p{N}%°])[^\p{L}\p{N}%°]*$/u.exec(rest)![0];
  const core = rest.slice(0, rest.length - after.length);
  const word = /^[ap]\.m$/i.test(core) ? core.toLowerCase().replace('.', '') : core.toLowerCase();
  return {
    before,
    core,
    after: /^[ap]m$/.test(word) && /^[ap]\.m$/i.test(core) ? after.replace(/^\./, '') : after,
    word,
  };
}

/** A reader of tokens that does not step over punctuation. */
export class Reader {
  private readonly start: number;

  constructor(
    readonly tokens: readonly Token[],
    public at: number,
  ) {
    this.start = at;
  }

  /** The word here, or the empty string where the phrase has ended. */
  get word(): string {
    return this.ahead(0);
  }

  ahead(steps: number): string {
    const token = this.tokens[this.at + steps];
    if (!token) return '';
    for (let i = this.at + steps; i > this.start; i--) {
      if (this.tokens[i]!.before || this.tokens[i - 1]!.after) return '';
    }
    return token.word;
  }

  take(...words: string[]): boolean {
    for (const [i, word] of words.entries()) if (this.ahead(i) !== word) return false;
    this.at += words.length;
    return true;
  }
}

export type Rule = (tokens: readonly Token[], at: number, kinds: ReadonlySet<NumeralKind>) => Figure | null;

export const before = (tokens: readonly Token[], at: number): string =>
  at > 0 && !tokens[at - 1]!.after && !tokens[at]!.before ? tokens[at - 1]!.word : '';
/** With a small letter it goes on from before. */
export const beginsSentence = (tokens: readonly Token[], at: number): boolean =>
  /^\p{Lu}/u.test(tokens[at]!.core) && (at === 0 || /[.?!…:]/.test(tokens[at - 1]!.after));
