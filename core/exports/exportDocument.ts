import type { MarkTone } from '../contract/markKinds';

/** Some words in one look. */
export type Run = {
  text: string;
  isBold?: boolean;
  isItalic?: boolean;
  tone?: MarkTone;
  address?: string;
  /** When it is said, in milliseconds from the beginning; only where the sound is there to follow. */
  startMs?: number;
};

/** Something from the margin. */
export type Aside = {
  /** "Key point at 3:04, for Jun Fairweather". */
  label: string;
  text: string;
  address: string | null;
  comments: readonly string[];
  pictureId: string | null;
};

export type Item = { runs: readonly Run[]; box: boolean | null; depth: number };

export type Block =
  | { kind: 'heading'; level: 1 | 2 | 3; text: string }
  /** `lead` stands bold before the words: a time, a name. `notes` are the numbers of footnotes behind them. */
  | { kind: 'paragraph'; lead: string; runs: readonly Run[]; notes: readonly number[] }
  | { kind: 'quote'; runs: readonly Run[] }
  | { kind: 'list'; isNumbered: boolean; items: readonly Item[] }
  | { kind: 'table'; hasHeader: boolean; rows: readonly (readonly (readonly Run[])[])[] }
  | { kind: 'aside'; aside: Aside }
  | { kind: 'picture'; pictureId: string; alt: string };

/** A document before it has a format: what every writer of pages is given. */
export type ExportDocument = {
  title: string;
  /** Lines below the title; none where there is no header. */
  facts: readonly string[];
  hasHeader: boolean;
  hasTitlePage: boolean;
  language: string;
  blocks: readonly Block[];
  /** Number 1 first. */
  footnotes: readonly Aside[];
};

export const plainRuns = (runs: readonly Run[]): string => runs.map((r) => r.text).join('');

/** Ids of the pictures in a sheet, each once. */
export const picturesOf = ({ blocks, footnotes }: ExportDocument): string[] => [
  ...new Set(
    [
      ...blocks.map((b) => (b.kind === 'picture' ? b.pictureId : b.kind === 'aside' ? b.aside.pictureId : null)),
      ...footnotes.map((f) => f.pictureId),
    ].filter((id): id is string => id !== null),
  ),
];
