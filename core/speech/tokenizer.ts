/**
 * Turns token ids into words. The pieces are those of a SentencePiece vocabulary with byte fallback
 * (Kudo and Richardson 2018): "▁" begins a word, "<0xNN>" is one byte of UTF-8.
 */
export const START_TOKEN = 1;
export const END_TOKEN = 2;

/** A word of the text with the positions of its tokens in the decoded sequence, `firstToken` to `lastToken` inclusive. */
export type TokenWord = { text: string; firstToken: number; lastToken: number };

export class Tokenizer {
  /** Ids from here up are no pieces: the model's table is padded to a round number. */
  readonly size: number;

  constructor(private readonly pieces: readonly string[]) {
    this.size = pieces.length;
  }

  private ids: Map<string, number> | null = null;

  /** Id of a piece of the vocabulary, "▁" for a space. */
  idOf(piece: string): number | undefined {
    this.ids ??= new Map(this.pieces.map((p, id) => [p, id]));
    return this.ids.get(piece);
  }

  /** Whether this token can be the first of a word. */
  beginsWord(token: number): boolean {
    return /^▁[\p{L}\p{N}]/u.test(this.pieces[token] ?? '');
  }

  /** Whether a word ends before this token: it begins another one, is a mark, or ends the text. */
  endsWordBefore(token: number): boolean {
    return !/^[\p{L}\p{N}<]/u.test(this.pieces[token] ?? '');
  }

  /**
   * Token ids of a text that stands inside a sentence: letters joined pair by pair, the piece with the lowest id first,
   * which is the order in which byte pair encoding learned them (Sennrich, Haddow and Birch 2016). What is in no piece
   * is spelled in bytes.
   */
  encode(text: string): number[] {
    const parts = [...`▁${text.trim().replace(/\s+/g, '▁')}`];
    for (;;) {
      let best = Infinity;
      let at = -1;
      for (let i = 0; i + 1 < parts.length; i++) {
        const id = this.idOf(parts[i]! + parts[i + 1]!);
        if (id !== undefined && id < best) [best, at] = [id, i];
      }
      if (at < 0) break;
      parts.splice(at, 2, parts[at]! + parts[at + 1]!);
    }
    return parts.flatMap((part) => {
      const id = this.idOf(part);
      if (id !== undefined) return [id];
      return [...encoder.encode(part)].map((byte) =>
        this.idOf(`<0x${byte.toString(16).toUpperCase().padStart(2, '0')}>`)!,
      );
    });
  }

  /** Words of a token sequence without start token; control tokens and unknown ids are passed over. */
  words(tokens: readonly number[]): TokenWord[] {
    const groups: { bytes: number[]; firstToken: number; lastToken: number }[] = [];
    tokens.forEach((token, position) => {
      const piece = token > END_TOKEN ? this.pieces[token] : undefined;
      if (piece === undefined) return;
      const begins = piece.startsWith('▁');
      const last = groups.at(-1);
      const bytes = pieceBytes(begins ? piece.slice(1) : piece);
      if (begins || !last) groups.push({ bytes, firstToken: position, lastToken: position });
      else {
        last.bytes.push(...bytes);
        if (bytes.length) last.lastToken = position;
      }
    });
    const decoder = new TextDecoder();
    return groups
      .map(({ bytes, ...rest }) => ({ text: decoder.decode(Uint8Array.from(bytes)).trim(), ...rest }))
      .filter((word) => word.text !== '');
  }
}

const encoder = new TextEncoder();

function pieceBytes(piece: string): number[] {
  const byte = /^<0x([0-9A-F]{2})>$/i.exec(piece);
  if (byte) return [parseInt(byte[1]!, 16)];
  return [...encoder.encode(piece.replace(/▁/g, ' '))];
}
