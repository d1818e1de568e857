/**
 * A dictated letter as it would be sent: what was said to the machine, to the secretary or to oneself goes, salutation,
 * subject, paragraphs and closing stand apart. The wording stays as it was spoken.
 */
import { upperFirst, withoutEnd } from '../language/words';
import { numberValue, ordinalValue } from '../language/spokenNumbers';

export type Letter = {
  /** Above the salutation: a reference, "Subject: ...". */
  head: string[];
  salutation: string | null;
  paragraphs: string[];
  /** "Yours sincerely", then name and what stands under it. */
  closing: string[];
  /** Below: "Copy to the patient". */
  foot: string[];
};

const PARAGRAPH = '\u0001';
const FILLER = /(?:^|[\s,])(?:um+|uh+|er+m?|hm+|ah|you know)(?:,|(?=[\s.?!]|$))/giu;
const SPELLED =
  /(?:,? ?(?:and )?(?:that's|that is|spelled|it's|spell it(?: properly)?(?:, \p{Lu}\p{Ll}+)?,?) )?\p{Lu}(?:-\p{Lu}){2,}/gu;
const WITH_A =
  /(?:,? (?:and )?(?:that's |please )?(?:\p{Lu}\p{Ll}+ )?with (?:an?|the|two) (?:\p{L}|accent|two dots|dots)\b[^.,]*)/gu;
/** What is spoken of the writing and not written. */
const INSTRUCTS =
  /\b(?:don't (?:write|say|put|send)|do not (?:write|say|put)|leave (?:it|that|this|out)\b|take (?:that|it|this) out|scratch|delete|strike|cut (?:it|that)|keep (?:it|that)|put (?:that|it|a|the|in|our|my|his|her)|write (?:the|it|that|out)|make (?:it|that)|not that\b|capital|capitals|italics|underlined|in bold|bold\b|bullets|as a list|spell it|read (?:that|it) back|that's a joke|stroke that|rub (?:that|it) out|forget (?:that|it)|never mind|where was i|hold on|hang on|is it on|how do i|too (?:much|blunt|casual|formal|long)|is that|can you put|date it|the date|standard slip)\b/iu;
/** "..., no, don't write that": what stands before it is taken back. */
const TAKEN_BACK =
  /(?:,|\.|\?)? (?:no|oh|god|hm|well|actually|sorry|wait)?,? ?(?:no,? )?(?:(?:don't|do not) (?:write|say|put) (?:that|it|this)|(?:take|leave|cut|rub|strike|scratch) (?:that|it|this)(?: last(?: bit| one)?)? ?(?:out|off|again)?(?! (?:in|at)\b)|(?:scratch|strike|delete|cut) (?:that|it)|leave (?:that )?out (?:that|the) last|leave out that last|that's a joke,? leave it out|not that\b|no,? cut it)/iu;
const CLOSING =
  /^(?:(?:yours|very|with|kind|best|warm|warmest|many|all|talk|cheers|thanks|thank|sincerely|regards|love|take|see|until)\b[^,.]*?(?:sincerely|faithfully|truly|regards|wishes|soon|cheers|thanks|thank you|best|ever|love|care|yours)|cheers|thanks|thank you|regards|sincerely|yours)(?: from)?(?=[,.]|$)/iu;
const SALUTATION =
  /\b((?:dear|hi|hello|good morning|good afternoon|morning|hey)\b(?: (?:(?:mr|mrs|ms|miss|dr|professor|sir|madam|madame)\.?|all|both|everybody|everyone|there|team|colleagues?|parents|tenants|neighbours|members|friends|or|and|\p{Lu}[\p{L}'’-]*)){0,8})\s*[,.:]\s*/iu;

const sentencesIn = (text: string): string[] =>
  text
    .split(/(?<=[.?!])(?![.?!])/u)
    .map((s) => s.trim())
    .filter(Boolean);
const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}']+/gu) ?? [];

const MONTHS = 'January|February|March|April|May|June|July|August|September|October|November|December';
/** "The second of March" as it is written: "2 March". */
const dated = (text: string): string =>
  text
    .replace(
      new RegExp(
        `\\b(?:the )?((?:twenty-|thirty-)?\\p{L}+(?:st|nd|rd|th|first|second|third)) of (${MONTHS})\\b`,
        'giu',
      ),
      (all, day: string, month: string) => {
        const number = ordinalValue(day);
        return number && number <= 31 ? `${number} ${upperFirst(month)}` : all;
      },
    )
    .replace(/\btwenty (twenty|thirty)(?:-(\p{L}+))?\b/giu, (all, tens: string, ones?: string) => {
      const n = (numberValue(tens) ?? 0) + (ones ? (numberValue(ones) ?? NaN) : 0);
      return Number.isFinite(n) ? String(2000 + n) : all;
    });

/** Words that a later clause says again: so many of the same in a row, and the earlier one is a beginning. */
const AGAIN = 3;

/** Nobody dictates longer sentences: what is longer stays as it is. */
const MAX_SENTENCE = 1500;
/** So many clauses on, a beginning is taken up again. */
const AGAIN_WITHIN = 8;

/** "I could start on the sixteenth, no, hang on, I could start on the twenty-third": the last beginning counts. */
function withoutRestarts(text: string): string {
  const clauses = text.split(/(?<=,) /u);
  for (let i = 0; i < clauses.length; i++) {
    const own = wordsIn(clauses[i]!).slice(0, AGAIN).join(' ');
    if (own.split(' ').length < AGAIN) continue;
    for (let k = Math.min(clauses.length - 1, i + AGAIN_WITHIN); k > i; k--) {
      const later = wordsIn(clauses[k]!.replace(/^(?:no|so|well|sorry|and),? /iu, ''));
      if (later.slice(0, AGAIN).join(' ') !== own) continue;
      clauses.splice(i, k - i);
      break;
    }
  }
  let rest = clauses.join(' ');
  // "A, on a sack": said again from one word on.
  rest = rest.replace(/\b((?:\p{L}+ ){1,3}\p{L}+),? (?:no,? )?(?=\1\b)/giu, '').replace(/\b(\p{L}+), (?=\1\b)/giu, '');
  // "none, correction, little": only the word before it.
  return rest.replace(/(?<![\p{L}'-])[\p{L}'-]{1,40}, (?:correction|rather|i mean|or rather|i should say), /giu, '');
}

/** Takes out what is withdrawn inside a sentence; null where nothing of it is left. */
function withoutWithdrawn(sentence: string): string | null {
  let rest = sentence;
  for (let i = 0; i < 4; i++) {
    const match = TAKEN_BACK.exec(rest);
    if (!match) break;
    const before = rest.slice(0, match.index);
    const after = rest.slice(match.index + match[0].length).replace(/^[^,.;?!]*/u, '');
    const cut = Math.max(before.lastIndexOf(', '), before.lastIndexOf('; '));
    const kept = cut > 0 ? before.slice(0, cut) : '';
    const next = after.replace(/^[,;] ?/u, '').trim();
    const isInstruction = INSTRUCTS.test(next) || /^(?:leave it at|just|only)\b/iu.test(next);
    rest = kept
      ? `${kept}${next && !isInstruction && !/^[.?!]$/.test(next) ? `, ${next}` : '.'}`
      : isInstruction
        ? ''
        : upperFirst(next);
  }
  rest = rest.trim();
  return wordsIn(rest).length ? rest : null;
}

/** "We meet on Friday, no, scratch that, we meet on Thursday": a sentence on either side; the second one counts. */
function isCorrected(sentence: string): boolean {
  const match = TAKEN_BACK.exec(sentence);
  if (!match) return false;
  const after = sentence.slice(match.index + match[0].length);
  return [sentence.slice(0, match.index), after].every(
    (side) => wordsIn(side).length >= AGAIN && !INSTRUCTS.test(side),
  );
}

/** An instruction stands at the beginning of its sentence; further on it takes back a part of it. */
const LATE = 25;

const isRetold = (first: string, second: string): boolean => {
  const a = wordsIn(first);
  const b = wordsIn(second.replace(/^(?:so|no|just|make it|well|and)[, ]+/iu, ''));
  const shared = a.filter((w) => b.includes(w)).length;
  return (
    a.length >= AGAIN &&
    b.length >= AGAIN &&
    (a.slice(0, AGAIN).join(' ') === b.slice(0, AGAIN).join(' ') || shared / Math.min(a.length, b.length) > 0.75)
  );
};

/** The words of the body, sentence by sentence, without what was said of them. */
function cleaned(paragraph: string): string {
  const out: string[] = [];
  for (const said of sentencesIn(paragraph)) {
    if (said.length > MAX_SENTENCE) {
      out.push(said);
      continue;
    }
    const words = wordsIn(said);
    // An instruction alone takes back the clause or sentence before it, unless it says to keep it.
    if (
      (INSTRUCTS.exec(said)?.index ?? Infinity) < LATE &&
      words.length <= 14 &&
      !isCorrected(said) &&
      !/\b(?:please (?:sign|return|send|call|ring|write|tell|bring|find)|would you|could you|i enclose)\b/iu.test(said)
    ) {
      const last = out.at(-1);
      const keeps =
        /\b(?:keep|leave it|leave that in|put it in|put that|write the|is that|too (?:much|blunt)|capital|italics|bold|where was i|is it on|the date|date it)\b/iu.test(
          said,
        );
      if (
        last &&
        !keeps &&
        /\b(?:don't|take|scratch|delete|strike|cut|leave (?:that|it) out|leave out|not that|forget|rub)\b/iu.test(said)
      ) {
        const cut = last.lastIndexOf(', ');
        if (cut > 0) out[out.length - 1] = `${last.slice(0, cut)}.`;
        else out.pop();
      }
      const make = /\bmake (?:it|that),? (.+)$/iu.exec(said)?.[1];
      if (make) {
        if (out.length) out.pop();
        out.push(upperFirst(make));
      }
      continue;
    }
    if (/^(?:no|yes|well|hm|ah|oh|right|okay|hello|sorry|yeah|now)[.,?!]*$/iu.test(said.trim())) continue;
    const kept = withoutWithdrawn(said);
    if (!kept) continue;
    const text = withoutRestarts(
      kept.replace(/^(?:so|okay|right|well|no|oh),? (?=\p{L})/iu, (lead) =>
        /^(?:so|no)/iu.test(lead) && out.length && isRetold(out.at(-1)!, kept)
          ? ''
          : /^(?:okay|right|oh)/iu.test(lead)
            ? ''
            : lead,
      ),
    );
    if (out.length && isRetold(out.at(-1)!, text)) out.pop();
    out.push(upperFirst(text.replace(/^(?:so|no), (?=\p{L})/iu, (lead) => (/^no/i.test(lead) ? '' : lead))));
  }
  return out
    .join(' ')
    .replace(/ ([,.;:?!])/g, '$1')
    .replace(/,(?=[.?!])/g, '')
    .replace(/ {2,}/g, ' ')
    .replace(/\bso, (?=\p{Lu})/giu, '')
    .trim();
}

const FOOT = /^(?:and )?(?:a )?(?:copy to|copies to|enclosures?|enclosed|p\.? ?s\.?|cc)\b/iu;
const MIN_NAME = 2;

/** Makes the letter of what was dictated. Without a salutation or a closing there is none; what was said is kept as paragraphs. */
export function composeLetter(spoken: string): Letter {
  let text = spoken
    .replace(/’/g, "'")
    .replace(/\s+/g, ' ')
    .replace(SPELLED, '')
    .replace(/(?:full stop,? )?(?:and )?\bnew (?:paragraph|para)\b[.,]?/giu, PARAGRAPH)
    .replace(/[,.]? ?\bfull stop\b(?! after)[,.]?/giu, '.')
    .replace(/,? ?\bcomma\b,?/giu, ',')
    .replace(/ ?\bnew line\b[.,]?/giu, PARAGRAPH)
    .replace(FILLER, (match) => (match.startsWith(' ') ? ' ' : ''))
    .replace(WITH_A, (match) => (/\bgloves|pleasure|regards|wishes/iu.test(match) ? match : ''))
    .replace(/ {2,}/g, ' ')
    .replace(/\.\s*\./g, '.');
  const head: string[] = [];
  const reference =
    /(?:oh,? )?(?:and )?put (?:our|the|my) reference (?:at the top|on it|up there)?,? ([^.]{2,40})\.?/iu.exec(text);
  if (reference) {
    head.push(`Our reference: ${reference[1]!.replace(/ stroke /giu, '/').replace(/ dash /giu, '-')}`);
    text = text.replace(reference[0], '');
  }
  const salutation = SALUTATION.exec(text);
  const opening = salutation ? text.slice(0, salutation.index) : '';
  let body = salutation ? text.slice(salutation.index + salutation[0].length) : text;
  const subject =
    /\bsubject(?: line)?[,:]? ([^.]{2,80})(?:\.|$)/iu.exec(opening) ??
    /^(?:subject|heading)[,:]? ([^.]{2,80})(?:\.|$)/iu.exec(body);
  const heading = /^(?:heading|re|regarding)[,:]? ([^.]{2,120})\./iu.exec(body);
  if (subject) head.push(`Subject: ${upperFirst(subject[1]!.trim())}`);
  if (subject && body.startsWith(subject[0])) body = body.slice(subject[0].length);
  if (heading && !subject)
    body = `${PARAGRAPH}${/^re/iu.test(body) ? 'Re: ' : ''}${upperFirst(heading[1]!)}${PARAGRAPH}${body.slice(heading[0].length)}`;
  // The closing is the last sentence that reads like one; what comes after the name is said to somebody here.
  const sentences = body
    .split(new RegExp(`(?<=[.?!]) |(?=${PARAGRAPH})|(?<=${PARAGRAPH})`, 'u'))
    .map((s) => s.trim())
    .filter(Boolean);
  let end = -1;
  for (let i = sentences.length - 1; i > 0 && i >= sentences.length - 8; i--)
    if (CLOSING.test(sentences[i]!)) {
      end = i;
      break;
    }
  const closing: string[] = [];
  const foot: string[] = [];
  if (end >= 0) {
    const [formula = '', ...names] = withoutEnd(sentences[end]!).split(/, /u);
    closing.push(`${upperFirst(formula)},`);
    const after = sentences.slice(end + 1).filter((s) => s !== PARAGRAPH);
    const named = names.length ? names : withoutEnd(after.shift() ?? '').split(/, /u);
    closing.push(...named.filter((n) => n.length >= MIN_NAME && !INSTRUCTS.test(n)).map(upperFirst));
    for (const said of after) {
      const before =
        /^(?:and )?(?:one more line |a line )?before (?:the|that|it)[^,]*, (.+)$/iu.exec(said)?.[1] ??
        /^(?:and )?one more line[^,]*, (.+)$/iu.exec(said)?.[1];
      const under = /^and then underneath,? (.+)$/iu.exec(said)?.[1];
      if (before) sentences.splice(end++, 0, PARAGRAPH, upperFirst(before));
      else if (under) foot.push(upperFirst(dated(under)));
      else if (FOOT.test(said))
        foot.push(
          upperFirst(
            dated(
              said
                .replace(/^and (?:a )?/iu, '')
                .replace(/[.,]? (?:and nobody|please).*$/iu, '')
                .replace(/\.$/u, ''),
            ),
          ),
        );
    }
    body = sentences.slice(0, end).join(' ');
  } else body = sentences.join(' ');
  const paragraphs = body
    .split(PARAGRAPH)
    .map((p) => dated(cleaned(p)))
    .filter((p) => /\p{L}/u.test(p));
  return {
    head,
    salutation: salutation ? `${upperFirst(salutation[1]!.trim())},` : null,
    paragraphs,
    closing,
    foot: foot.map((f) => f.replace(/\.$/u, '')),
  };
}

/** The letter as text, its parts with an empty line between. */
export function letterText({ head, salutation, paragraphs, closing, foot }: Letter): string {
  const [formula, ...names] = closing;
  return [head.join('\n'), salutation ?? '', ...paragraphs, formula ?? '', names.join('\n'), ...foot]
    .filter(Boolean)
    .join('\n\n');
}
