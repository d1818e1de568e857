import type { NewSlip } from '@immeld/core/contract/slips';
import { type AsidePhrases, findAsides } from '@immeld/core/language/asides';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';

export type NowRow =
  | { kind: 'text'; key: string; startMs: number; fixed: string; tentative: string }
  | { kind: 'slip'; key: string; slip: NewSlip }
  | { kind: 'aside'; key: string; text: string };

/** A pause this long begins a new paragraph while somebody speaks. */
const PARAGRAPH_PAUSE_MS = 2000;
/** Only the newest words are drawn: the others come with the recording. */
const SHOWN_WORDS = 400;

/** The words heard so far with the slips at their seconds, oldest first. */
export function nowRows(
  fixed: readonly TranscribedWord[],
  tentative: readonly TranscribedWord[],
  slips: readonly NewSlip[],
  phrases: AsidePhrases | null = null,
): NowRow[] {
  const shown = fixed.slice(-SHOWN_WORDS);
  const words = [...shown.map((w) => ({ ...w, isFixed: true })), ...tentative.map((w) => ({ ...w, isFixed: false }))];
  const from = fixed.length > shown.length ? shown[0]!.startMs : 0;
  const waiting = slips.filter((s) => s.startMs >= from).sort((a, b) => a.startMs - b.startMs);
  const asides = phrases ? findAsides(words, phrases) : [];
  const rows: NowRow[] = [];
  let before = -Infinity;
  for (const [i, word] of words.entries()) {
    const aside = asides.find((a) => i >= a.from && i < a.to);
    if (aside) {
      if (i === aside.from) rows.push({ kind: 'aside', key: `aside-${aside.startMs}`, text: aside.text });
      before = word.endMs;
      continue;
    }
    while (waiting.length && waiting[0]!.startMs <= word.startMs) rows.push(slipRow(waiting.shift()!));
    let row = rows.at(-1);
    if (row?.kind !== 'text' || word.startMs - before > PARAGRAPH_PAUSE_MS) {
      row = { kind: 'text', key: `text-${word.startMs}`, startMs: word.startMs, fixed: '', tentative: '' };
      rows.push(row);
    }
    if (word.isFixed) row.fixed += `${word.text} `;
    else row.tentative += `${word.text} `;
    before = word.endMs;
  }
  return [...rows, ...waiting.map(slipRow)];
}

const slipRow = (slip: NewSlip): NowRow => ({ kind: 'slip', key: slip.id, slip });
