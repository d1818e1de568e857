import { digitOf, readAmount, readBelowHundred } from './amounts';
import { COINS, FIGURE_BEFORE, UNIT_SYMBOLS, isMeasureWord } from './measureWords';
import { twoDigits } from './times';
import { type Figure, Reader, type Token, before } from './tokens';

export function money(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount || amount.value < 0) return null;
  if (amount.isLoose && !(r.word in COINS)) return null;
  if (r.take('pence') || (amount.value > 1 && r.take('p'))) return { text: `${amount.text}p`, end: r.at };
  const coin = COINS[r.word];
  // "Five pounds of soil" is a weight.
  if (!coin || (coin.sign === '£' && ['of', 'heavier', 'lighter', 'weight'].includes(r.ahead(1)))) return null;
  r.at++;
  const start = r.at;
  r.take('and');
  const small = Number.isInteger(amount.value) ? readBelowHundred(r) : null;
  const isSmallNamed = small !== null && r.take(coin.small);
  // Fifty after pounds is pence, unless it counts something else: "for ten pounds twenty people came".
  const isSmall =
    small !== null &&
    small > 0 &&
    (isSmallNamed || (small % 5 === 0 && small > 9 && start === r.at - 1 && !isPlural(r.word)));
  if (!isSmall) r.at = start;
  return { text: `${coin.sign}${amount.text}${isSmall ? `.${twoDigits(small)}` : ''}`, end: r.at };
}

const isPlural = (word: string): boolean => word.length > 3 && word.endsWith('s') && !word.endsWith('ss');

export function percent(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  return amount && (r.take('percent') || r.take('per', 'cent')) ? { text: `${amount.text}%`, end: r.at } : null;
}

export function measure(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount) return null;
  if (r.word === 'degrees' || r.word === 'degree') {
    r.at++;
    if (r.take('celsius') || r.take('centigrade')) return { text: `${amount.text} °C`, end: r.at };
    if (r.take('fahrenheit')) return { text: `${amount.text} °F`, end: r.at };
    return { text: `${amount.text}°`, end: r.at };
  }
  const power = r.take('square') ? '²' : r.take('cubic') ? '³' : '';
  const symbol = UNIT_SYMBOLS.get(r.word);
  if (symbol && (!power || symbol.endsWith('m'))) {
    r.at++;
    const perHour = (r.word === 'per' || r.word === 'an') && r.ahead(1) === 'hour' && symbol === 'km';
    if (perHour) r.at += 2;
    return { text: `${amount.text} ${symbol}${power}${perHour ? '/h' : ''}`, end: r.at };
  }
  if (power || amount.isLoose || !FIGURE_BEFORE.has(r.word)) return null;
  return { text: amount.text, end: r.at };
}

const ROW_LEADS = new Set(['number', 'code', 'room', 'extension', 'dial', 'call', 'pin', 'is']);

/** "Oh seven four, double five one": figures one by one, as telephone numbers are said. */
export function digitRow(tokens: readonly Token[], at: number): Figure | null {
  const groups: string[] = [''];
  let end = at;
  for (let i = at; i < tokens.length; i++) {
    const token = tokens[i]!;
    if (i > at && token.before) break;
    const times = token.word === 'double' ? 2 : token.word === 'triple' ? 3 : 1;
    const digit = digitOf(times > 1 ? tokens[i + 1]?.word : token.word);
    if (digit === null || (times > 1 && token.after)) break;
    if (times > 1) i++;
    groups[groups.length - 1] += digit.repeat(times);
    end = i + 1;
    const { after } = tokens[i]!;
    if (after === ',') groups.push('');
    else if (after) break;
  }
  const rows = groups.filter(Boolean);
  const shortest = ROW_LEADS.has(before(tokens, at)) ? 3 : 4;
  const isRow = rows.length === 1 ? rows[0]!.length >= shortest : rows.every((row) => row.length >= 3);
  if (rows.length === 0 || !isRow || isMeasureWord(tokens[end]?.word ?? '')) return null;
  // "Three two one" said alone at the end may be a count: only the rows that are long enough are joined.
  return { end, text: rows.join(' ') };
}
