import type { CurrencyTable } from '@immeld/core/compute/currencies';
import type { NoteLine } from '@immeld/core/compute/noteLines';
import type { LineAnswer } from '@immeld/core/compute/noteSums';

/** The lines of a note, to be worked out. @property day today where its writer is, `YYYY-MM-DD` */
export type ToSumWorker = { number: number; lines: readonly NoteLine[]; day: string; currencies: CurrencyTable | null };
export type FromSumWorker = { number: number; answers: (LineAnswer | null)[] };
