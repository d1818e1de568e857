import type { Sentence } from '../language/sentences';
import { topicStems, wordsOf } from '../language/words';
import { decisionsIn, openQuestionsIn } from '../writeup/findings';
import { isActionVerb } from '../language/todos/actionVerbs';

const has = (source: string): RegExp => new RegExp(`\\b(?:${source})\\b`, 'iu');
/** Turns of speech that close a matter, leave it open, agree or object: kinds, not single examples. */
const TURNS: Record<string, RegExp> = {
  then: /^(?:(?:okay|ok|right|fine|good|well|so|yes|yeah|oh|and|great)[,.]? )*then\b|\bthen[.!]?$/i,
  so: /^(?:(?:okay|ok|right|fine|good|well|yes|yeah|great)[,.]? )*so\b/i,
  closes:
    /^(?:okay|ok|right|fine|good|great|perfect|deal|done|agreed|settled|all right|alright|done|lovely|excellent)\b/i,
  lets: has("let's|let us|let it be|let them|let him|let her"),
  leave: has('leave it|leave that|leave the|leave them|stays?|keep|kept|stick to|stick with'),
  we: has(
    "we'll|we will|we're going|we go|we take|we do|we say|we don't|we won't|we keep|we leave|we use|we start|we put|we'd",
  ),
  weVerb: /\bwe (?!(?:have|had|were|are|know|could|should|might|can|need)\b)\p{L}+/iu,
  must: has('must|has to|have to|got to|needs? to'),
  no: /^(?:(?:then|so|okay|right|fine|well|but|and) )*(?:no|not|without|nothing|never|none|nobody)\b/i,
  out: has('out|off|dropped|finished|cancelled|gone|barred|over|dead'),
  settled: has(
    "that's settled|settled|decided|decision|agreed|voted|vote|carried|approved|final|done|deal|it is|that's that|that's it",
  ),
  choose: has('choose|chose|pick|take|go for|go with|going with|prefer|rather|instead|not by|both|either'),
  iwill: has("i'll|i will|i can|i'm going to|i could"),
  want: has("i want|i'd like|i would like|i'd rather|i don't want"),
  from: has(
    'from (?:today|tomorrow|now|next|the|monday|tuesday|wednesday|thursday|friday|saturday|sunday|january|february|march|april|may|june|july|august|september|october|november|december)|until|till|no longer|any more|anymore|only|subject to',
  ),
  unsure: has(
    "don't know|do not know|not sure|no idea|we'll see|wait and see|depends|nobody knows|hard to say|can't say|good question|wonder|open|not yet|unclear|maybe|perhaps|might|no one's|nobody's",
  ),
  later: has(
    "later|next time|think about it|talk about it|sleep on it|come back to|another day|park|see how|look into|find out|have to ask|need to ask|i'll ask|have to check|need to check|i'll check|let me ask|let me check|let me think|have to look|i need to look|wait for|waiting for|when we know|once we know|put (?:it|that) off|ask him|ask her|ask them|ask me",
  ),
  or: / or (?!something|so\b|two\b|three\b)/i,
  howabout: has(
    "what about|how about|shall we|should we|do we|can we|could we|would we|will we|what if|who's|who is|who does|who will",
  ),
  whether: has('if i should|whether|question is|or not'),
  past: has('was|were|had|did|went|came|said|told|used to'),
  money: /\d|pounds?|euros?|dollars?|per cent|hundred|thousand/i,
  thanks: has('thank|thanks|sorry|hello|hi|morning|bye|cheers'),
};
const YES =
  /^(?:yes|yeah|yep|yup|agreed|fine|okay|ok|right|sure|good|great|perfect|deal|done|exactly|of course|lovely|all right|alright|that works|makes sense|happy with that|go on|please|thank|i agree|me too|seconded|fair enough|thank god)\b/i;
const NO =
  /^(?:no\b|nope|not\b|i don't think|but\b|wait|hm+|really|hang on|hold on|never|absolutely not|i disagree|i'm not)/i;
const ASKS_FOR_A_YES = /^(?:do|does|did|is|are|was|were|can|could|should|shall|will|would|have|has|may|am)\b/i;
const ASKS_OPENLY = /^(?:who|what|when|where|why|how|which|whose)\b/i;

const opening = (text: string): string =>
  text
    .toLowerCase()
    .replace(
      /^(?:(?:and|but|so|well|um|uh|er|oh|okay|ok|right|now|sorry|yes|no|yeah|then|also|good|fine|look|listen|hm)[,. ]+)+/i,
      '',
    );

type Seen = { turns: string[]; length: number; asks: boolean; kind: string; stems: Set<string>; open: string[] };
function see({ text }: Sentence): Seen {
  const plain = text.replace(/’/g, "'").trim();
  const rest = opening(plain);
  const words = wordsOf(rest);
  return {
    turns: Object.entries(TURNS).flatMap(([name, turn]) => (turn.test(plain) ? [name] : [])),
    length: wordsOf(plain).length,
    asks: plain.endsWith('?'),
    kind: ASKS_FOR_A_YES.test(rest)
      ? 'yesno'
      : ASKS_OPENLY.test(rest)
        ? 'open'
        : isActionVerb(words[0] ?? '')
          ? 'verb'
          : 'other',
    stems: new Set(topicStems(plain)),
    open: words.slice(0, 3),
  };
}

/**
 * What is true of each sentence of a conversation, to tell decisions and open questions by: how it and its neighbours
 * are said, who says them, what words they share, and the rules' verdicts. Few and general, for there is little to
 * learn from.
 */
export function turnFeatures(sentences: readonly Sentence[]): string[][] {
  const seen = sentences.map(see);
  const decided = new Set(decisionsIn(sentences));
  const left = new Set(openQuestionsIn(sentences));
  return sentences.map((s, i) => {
    const own = seen[i]!;
    const out = ['bias', `len:${Math.min(6, Math.ceil(own.length / 4))}`, `asks:${own.asks}`, `kind:${own.kind}`];
    out.push(`o1:${own.open[0]}`, `o2:${own.open[0]} ${own.open[1]}`, `ak:${own.asks} ${own.kind}`);
    for (const t of own.turns) out.push(`t:${t}`, `ta:${t} ${own.asks}`, `tl:${t} ${own.length < 8}`);
    if (decided.has(s)) out.push('rule:decided');
    if (left.has(s)) out.push('rule:open');
    // Where the turn stands, and what was asked before.
    const before = seen[i - 1];
    const isTurn = !sentences[i - 1] || sentences[i - 1]!.speaker !== s.speaker;
    out.push(
      `turn:${isTurn}`,
      `last:${sentences[i + 1]?.speaker !== s.speaker}`,
      `place:${Math.floor((4 * i) / sentences.length)}`,
    );
    if (before) {
      out.push(
        `pa:${before.asks} ${isTurn}`,
        `pak:${before.asks} ${isTurn} ${own.kind}`,
        `pl:${before.asks} ${Math.min(4, own.length >> 2)}`,
      );
      for (const t of before.turns) out.push(`p:${t}`, `pt:${t} ${isTurn}`);
    }
    let asked = -1;
    for (let k = i - 1; k >= Math.max(0, i - 8); k--)
      if (seen[k]!.asks || seen[k]!.turns.includes('or')) {
        asked = k;
        break;
      }
    if (asked >= 0) {
      const shared = [...own.stems].filter((x) => seen[asked]!.stems.has(x)).length;
      out.push(
        `q:${i - asked} ${Math.min(2, shared)}`,
        `qo:${seen[asked]!.turns.includes('or')} ${Math.min(2, shared)} ${own.length < 8}`,
        `qs:${sentences[asked]!.speaker === s.speaker}`,
      );
    }
    // What comes of it.
    const replies = sentences.map((x, k) => ({ x, k })).slice(i + 1, i + 7);
    const reply = replies.find(({ x }) => x.speaker !== s.speaker);
    if (reply) {
      const text = reply.x.text;
      out.push(
        `r:${YES.test(text) ? 'yes' : NO.test(text) ? 'no' : seen[reply.k]!.asks ? 'asks' : 'other'}`,
        `rl:${Math.min(4, seen[reply.k]!.length >> 2)}`,
      );
      for (const t of seen[reply.k]!.turns) out.push(`rt:${t}`, `rta:${t} ${own.asks}`);
    } else out.push('r:none');
    const near = replies.slice(0, 4).flatMap(({ k }) => seen[k]!.turns);
    for (const t of new Set(near)) if (/unsure|later|settled|then|lets|thanks/.test(t)) out.push(`n:${t} ${own.asks}`);
    const again = seen.slice(i + 1).some((o) => [...o.stems].filter((x) => own.stems.has(x)).length >= 2);
    out.push(`again:${again} ${own.asks}`);
    const answered = replies
      .slice(0, 4)
      .some(({ k }) => !seen[k]!.asks && [...own.stems].some((x) => seen[k]!.stems.has(x)));
    out.push(`answered:${answered} ${own.asks}`);
    out.push(`stems:${Math.min(4, own.stems.size)}`, `stemsAsk:${Math.min(4, own.stems.size)} ${own.asks}`);
    return out;
  });
}
