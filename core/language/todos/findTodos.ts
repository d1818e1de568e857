import type { Sentence } from '../sentences';
import { spokenDate } from '../spokenDates';
import { spokenRepeat } from '../spokenRepeats';
import { stem, wordsOf } from '../words';
import { isActionVerb } from './actionVerbs';
import { clausesOf, clean, firstWord, listed, numberedPoint, splitAtVerbs } from './clauses';
import { type Pending, asksToTakeIt, isDoneAlready, isNo, isYes, openQuestion, takerIn } from './dialogue';
import { isCalled } from './people';
import { type Named, announcedProject, projectIn } from './projects';
import { Scene } from './scene';
import { type Owner, type Trigger, triggerOf } from './triggers';
import { type Item, pointsElsewhere, splitActions, wordAsAction } from './wording';

export type TodoContext = {
  /** When it was said, local: `2026-03-09T07:40`. Due dates are counted from here. */
  at: string;
  projects?: readonly Named[];
  /** Name of the person whose list it is: what this speaker promises is "me". */
  ownName?: string | null;
};

/**
 * `who` is "me", a name, or null when nobody is named; `repeat` is a recurrence rule (RFC 5545, 3.3.10) or null;
 * `sentence` is the number of the sentence it came from.
 */
export type FoundTodo = {
  text: string;
  who: string | null;
  due: string | null;
  repeat: string | null;
  project: string | null;
  quote: string;
  sentence: number;
};

const SHOPPING =
  /^(?:(?:my |the |a )?shopping(?: list)?|(?:the |some )?things to buy|to buy|groceries|from the shop)(?:\s*[:,]| is| are)\s+(\S.*)$/i;
const THINGS =
  /^(?:the |my )?(?:\p{L}+ )?(?:things|tasks|steps|jobs|to-dos|points)(?: (?:to do|i (?:have|need) to do))?( for .+?)? (?:are|is)(?: to)?:? (.+)$/iu;
const INTRODUCES =
  /^(?:(?:[Hh]ello|[Hh]i|[Hh]ey|[Gg]ood (?:morning|afternoon|evening|day))\b[^.]*? )?(?:[Tt]his is|[Mm]y name is) (?!\p{L}+day\b)(?<name>\p{Lu}[\p{L}'-]+(?: \p{Lu}[\p{L}'-]+)?)/u;
/** Nobody asks himself to be called back. */
const CALL_BACK = /^(call|ring|phone) (?:me|us) back\b/i;
const CALLED_BACK = /^(?:call|ring|phone) them back\b/i;
const CALLS =
  /\b(?:I am|I'm|we are|we're) (?:calling|ringing|phoning)\b|\b(?:call|ring|phone) (?:me|us) back\b|\bthis is a message (?:for|from)\b/i;
const CANCELS =
  /^(?:actually,? |no,? |and )*(?:(?:strike|scratch|cross (?:off|out)|remove|delete|take|drop)(?: off)? (?:the |that |my )?(.+?)(?: (?:from|off) (?:the|my|that) list)|(?:strike|scratch|cross (?:off|out)|never mind|forget about) (?:the |that |my )?(.+?))(?=[,.;]|$)/i;

/**
 * To-dos in what was said: promises, requests, plain commands and things that have to be done; not what is done
 * already, not wanted, past or only supposed. In a dialogue a promise belongs to who speaks, a request to who is asked
 * and takes it.
 */
export function findTodos(sentences: readonly Sentence[], context: TodoContext): FoundTodo[] {
  const speakers = new Set(sentences.flatMap((s) => s.speaker ?? []));
  // One voice that nobody has named is the person's own.
  const isAlone = speakers.size === 1 && UNNAMED.test([...speakers][0]!);
  const isOneVoice = isAlone || speakers.size === 0;
  const caller = isOneVoice ? callerIn(sentences) : null;
  const said = isOneVoice ? sentences.map((s) => ({ ...s, speaker: caller })) : sentences;
  return new TodoFinder(said, context).find();
}

/** Who left a message: "Hello, this is Petra Sund from ... I am calling about ..."; null for a memo of one's own. */
function callerIn(sentences: readonly Sentence[]): string | null {
  const opening = sentences.slice(0, 2).map((s) => INTRODUCES.exec(s.text.replace(/’/g, "'")));
  const name = opening.find((match) => match)?.groups?.name;
  return name && !name.endsWith("'s") && sentences.some(({ text }) => CALLS.test(text.replace(/’/g, "'")))
    ? name
    : null;
}

class TodoFinder {
  private readonly found: FoundTodo[] = [];
  private readonly scene: Scene;
  private readonly projects: readonly Named[];
  private readonly isLecture: boolean;
  private readonly speakers: string[];
  private project: string | null = null;
  private pending: (Pending & { todo: FoundTodo | null; isOf: number }) | null = null;
  private at = 0;
  private speaker: string | null = null;
  private speakerBefore: string | null = null;
  /** Who spoke before the one who speaks now. */
  private otherBefore: string | null = null;

  constructor(
    private readonly sentences: readonly Sentence[],
    private readonly context: TodoContext,
  ) {
    this.projects = context.projects ?? [];
    this.isLecture = isTeaching(sentences);
    this.speakers = [...new Set(sentences.flatMap((s) => s.speaker ?? []))];
    this.scene = new Scene(context.at, this.speakers);
  }

  find(): FoundTodo[] {
    for (this.at = 0; this.at < this.sentences.length; this.at++) {
      const { text, speaker } = this.sentences[this.at]!;
      this.speakerBefore = this.speaker;
      if (speaker !== this.speaker && this.speaker !== null) this.otherBefore = this.speaker;
      this.speaker = speaker;
      this.take(text);
    }
    return this.found.filter(
      (todo, i) => this.found.findIndex((t) => t.text.toLowerCase() === todo.text.toLowerCase()) === i,
    );
  }

  private take(text: string): void {
    const plain = text.replace(/’/g, "'").trim();
    if (this.cancels(plain) || this.answers(plain)) return;
    if (/^(?:and |but |so |then )?if\b/i.test(plain)) {
      this.scene.hear(plain);
      return;
    }
    const { project, rest } = announcedProject(plain, this.projects);
    if (project !== undefined) this.project = project;
    const list = SHOPPING.exec(clean(rest));
    if (list) {
      for (const thing of listed(list[1]!)) this.add(this.item(`buy ${thing}`), 'listener');
      return;
    }
    const things = THINGS.exec(clean(rest));
    if (things && isActionVerb(firstWord(things[2]!))) {
      this.project = projectIn(things[1] ?? '', this.projects) ?? this.project;
      for (const item of splitActions({ owner: 'listener', action: things[2]! }, this.context.at)) {
        this.add(item, 'listener');
      }
      return;
    }
    const asked = openQuestion(clean(plain), this.speaker, isActionVerb);
    if (asked) {
      this.pending = { ...asked, action: this.scene.resolve(asked.action, false), todo: null, isOf: this.at };
      this.scene.hear(plain);
      return;
    }
    this.takeClauses(rest);
  }

  private takeClauses(text: string): void {
    const point = numberedPoint(text);
    let carried: Trigger | null = null;
    let isFirst = true;
    for (const clause of clausesOf(this.timeLast(point ?? text)).flatMap(afterFragment)) {
      const isExplained = this.isLecture && !isAssignment(clause, text, this.context.at);
      const trigger: Trigger | null = isExplained ? null : triggerOf(clause, carried, point !== null && isFirst);
      isFirst = false;
      if (!trigger) {
        carried = null;
        this.scene.hear(clause);
        continue;
      }
      if (!trigger.isPassive) carried = trigger;
      const { action, due } = this.scene.thenIn(trigger.action);
      const dateBefore = this.scene.lastDate;
      for (const item of splitActions({ ...trigger, action }, this.context.at)) {
        const isBack = /\b(?:it|them|him|her)\b/i.test(item.text);
        const eventDate = isBack && carried === trigger && this.isEventBefore() ? dateBefore : null;
        this.add({ ...item, due: item.due ?? due ?? eventDate }, trigger.owner);
      }
      if (trigger.owner !== 'speaker' && trigger.owner !== 'listener') this.waitForAnswer();
    }
  }

  /** "Every morning I have to check the pump" with its time behind, where a wording begins as others do. */
  private timeLast(text: string): string {
    const plain = clean(text);
    const time = spokenRepeat(plain, this.context.at) ?? spokenDate(plain, this.context.at);
    if (!time || time.start > 0) return text;
    const phrase = plain.slice(0, time.end).toLowerCase();
    const rest = plain.slice(time.end).replace(/^[,:]?\s*/, '');
    const [first = '', ...others] = clausesOf(rest);
    if (!first || /^(?:is|was|are|were|and|or|to)\b/i.test(rest)) return text;
    const isAsked = first.endsWith('?');
    const moved = `${first.replace(/\?$/, '')} ${phrase}${isAsked ? '?' : ''}`;
    return others.length ? `${moved}; ${others.join('; ')}` : moved;
  }

  /** Whether the sentence before told of something that happens at a time, and asked for nothing. */
  private isEventBefore(): boolean {
    const before = this.sentences[this.at - 1];
    return Boolean(
      before &&
      before.speaker === this.speaker &&
      this.found.at(-1)?.sentence !== this.at - 1 &&
      spokenDate(before.text, this.context.at),
    );
  }

  private item(action: string): Item {
    return (
      wordAsAction(action, this.context.at) ?? {
        ...{ text: action.charAt(0).toUpperCase() + action.slice(1), due: null, repeat: null, source: action },
      }
    );
  }

  private add(item: Item, owner: Owner): FoundTodo | null {
    const isOther = this.speakers.length > 1 && this.speakerBefore !== this.speaker;
    const who = this.personOf(owner);
    const text = this.addressed(this.scene.resolve(item.text, isOther), owner, who);
    const { pending } = this;
    const answered = pending?.todo && this.at - pending.isOf <= 3 && sameVerb(text, pending.todo.text);
    if (
      answered &&
      who &&
      (pointsElsewhere(item.text) || stemsOf(text).every((s) => stemsOf(pending.todo!.text).includes(s)))
    ) {
      Object.assign(pending.todo!, { who, due: item.due ?? pending.todo!.due });
      this.pending = null;
      return pending.todo;
    }
    if (pointsElsewhere(text) && !CALLED_BACK.test(text) && !(item.due && /\b(?:me|us|him|her|them|you)\b/i.test(text)))
      return null;
    const todo: FoundTodo = {
      ...{ text, who, due: item.due, repeat: item.repeat },
      project: projectIn(item.source, this.projects) ?? this.project,
      quote: this.sentences[this.at]!.text,
      sentence: this.at,
    };
    this.found.push(todo);
    this.scene.hear(text.charAt(0).toLowerCase() + text.slice(1));
    if (item.due) this.scene.hear(item.source);
    return todo;
  }

  /** "Me" and "you" as the reader of the list would say it. */
  private addressed(text: string, owner: Owner, who: string | null): string {
    if (this.speaker === null && owner === 'listener') return text.replace(CALL_BACK, '$1 them back');
    if (this.speaker === null || this.isMe(this.speaker)) {
      const other = owner === 'speaker' ? this.personOf('addressee') : null;
      return other && other !== 'me' ? text.replace(/\byou\b(?! (?:told|said|have|are|were|can))/i, other) : text;
    }
    let worded = who === 'me' ? text.replace(/\byour\b/gi, 'my').replace(/\byou\b/gi, 'me') : text;
    const other = this.otherBefore;
    if (owner === 'speaker' && other && !UNNAMED.test(other))
      worded = worded.replace(/\byou\b(?! (?:told|said|have|are|were|can))/i, this.isMe(other) ? 'me' : other);
    if (owner !== 'speaker' && owner !== 'nobody' && !UNNAMED.test(this.speaker))
      worded = worded.replace(/\b(?:me|us)\b/gi, this.speaker);
    return worded;
  }

  private isMe(name: string): boolean {
    return isCalled(this.context.ownName ?? '', name);
  }

  private personOf(owner: Owner): string | null {
    if (typeof owner === 'object') return this.isMe(owner.name) ? 'me' : owner.name;
    if (owner === 'nobody') return null;
    if (owner === 'speaker') return this.speaker === null || this.isMe(this.speaker) ? 'me' : this.speaker;
    if (this.speaker === null) return owner === 'listener' ? 'me' : null;
    const others = this.speakers.filter((s) => s !== this.speaker);
    const other = others.length === 1 ? others[0]! : others.length > 1 ? this.nextToAccept() : null;
    if (other !== null) return this.isMe(other) ? 'me' : other;
    // A message that one person left is for its listener.
    return others.length === 0 && owner === 'listener' ? 'me' : null;
  }

  private nextToAccept(): string | null {
    const next = this.sentences[this.at + 1];
    return next?.speaker && next.speaker !== this.speaker && isYes(clean(next.text)) ? next.speaker : null;
  }

  private waitForAnswer(): void {
    const todo = this.found.at(-1);
    if (todo?.sentence !== this.at) return;
    this.pending = { action: todo.text, askedBy: this.speaker, kind: 'request', todo, isOf: this.at };
  }

  /** Takes a sentence that answers what was asked before. Returns whether nothing is left of it. */
  private answers(text: string): boolean {
    const opened = text.replace(/^(?:oh|well|so|then|and|but|sorry|good|great|fine|ah)\b[,.]? /i, '');
    const isOther = this.speakerBefore !== this.speaker;
    if (isOther && isDoneAlready(opened)) {
      const open = this.pending?.todo ?? (this.found.at(-1)?.sentence === this.at - 1 ? this.found.at(-1) : undefined);
      if (open && (this.pending || isNo(opened))) this.found.splice(this.found.indexOf(open), 1);
      this.pending = null;
      return true;
    }
    if (asksToTakeIt(opened)) {
      const todo = this.found.findLast((t) => t.who === null);
      if (todo) this.pending = { action: todo.text, askedBy: this.speaker, kind: 'request', todo, isOf: this.at };
      return true;
    }
    const unasked = opened.replace(/^(?:no|yes|yeah|sure|okay|ok)\b[,.]? (?:wait, )?/i, '');
    const taker = takerIn(unasked);
    if (taker) {
      const who = this.personOf(/^i$/i.test(taker) ? 'speaker' : { name: taker });
      const due = spokenDate(unasked, this.context.at)?.due ?? null;
      const open = this.pending?.todo ?? this.found.findLast((t) => t.who === null && this.at - t.sentence <= 4);
      if (open) Object.assign(open, { who, due: due ?? open.due });
      else if (this.pending) {
        const item = this.item(this.pending.action);
        const todo = this.add({ ...item, due: due ?? item.due }, 'nobody');
        if (todo) todo.who = who;
      }
      this.pending = null;
      return true;
    }
    const { pending } = this;
    if (!pending || !isOther || this.at - pending.isOf > 2) return false;
    if (isNo(opened)) {
      if (pending.kind === 'request' && pending.todo) pending.todo.who = null;
      this.pending = null;
      return false;
    }
    if (!isYes(opened)) return false;
    const due = spokenDate(opened, this.context.at)?.due ?? null;
    if (pending.todo) {
      pending.todo.who = this.personOf('speaker');
      // "Yes, I'll send it on Wednesday" says it better itself.
      const says = clean(opened).replace(/^(?:of course|you'll have it)\b[,.]? ?/i, '');
      if (/^i(?:'ll| will)\b/i.test(says)) return false;
      pending.todo.due = due ?? pending.todo.due;
    } else if (pending.kind === 'own') {
      const item = this.item(pending.action);
      const asker = pending.askedBy;
      const todo = this.add({ ...item, due: due ?? item.due }, 'nobody');
      if (todo) todo.who = asker === null || this.isMe(asker) ? 'me' : asker;
    } else {
      const item = this.item(pending.action);
      this.add({ ...item, due: due ?? item.due }, 'speaker');
    }
    this.pending = null;
    return opened.split(' ').length <= 8 && !/\bi(?:'ll| will| have| need)\b/i.test(opened);
  }

  /** "Strike the bus from the list": what was found of it before goes. */
  private cancels(text: string): boolean {
    const match = CANCELS.exec(text.replace(/^(?:oh|well|so|and|but)\b,? /i, ''));
    const thing = match?.[1] ?? match?.[2];
    if (!match || !thing) return false;
    const gone = stemsOf(thing);
    const before = this.found.length;
    for (let i = this.found.length - 1; i >= 0; i--) {
      const words = stemsOf(this.found[i]!.text);
      if (gone.length && gone.every((s) => words.includes(s))) this.found.splice(i, 1);
    }
    if (this.found.length === before) return false;
    const rest = text.slice(text.indexOf(match[0]) + match[0].length).replace(/^[,.;\s]+/, '');
    if (rest) this.takeClauses(rest);
    return true;
  }
}

const FINITE =
  /\b(?:i|we|you|he|she|they|it|there|this|that|who|which|what|is|are|was|were|be|has|have|had|will|would|can|could|should|must|do|does|did|not)\b/i;

/** "Odd stakes and soft ties, then call Jun": what was misheard at the beginning does not swallow what follows. */
function afterFragment(clause: string): string[] {
  if (isActionVerb(firstWord(clause))) return [clause];
  const [fragment = '', ...rest] = splitAtVerbs(clause);
  const isFragment =
    rest.length > 0 &&
    !/^\p{Lu}[\p{L}'-]+$/u.test(fragment) &&
    fragment.split(' ').length <= 8 &&
    !FINITE.test(fragment.replace(/'/g, ' '));
  return isFragment && !/^(?:please|remind|remember|somebody|someone|let)\b/i.test(fragment)
    ? [fragment, clause.slice(clause.indexOf(rest[0]!, fragment.length))]
    : [clause];
}

/** A voice that nobody has named yet. */
const UNNAMED = /^(?:speaker )?(?:\d+|[A-Z])$/i;

const stemsOf = (text: string): string[] =>
  wordsOf(text)
    .filter((w) => !/^(?:the|a|an|my|your|our|his|her|their|to|it|me|that|this|them)$/.test(w))
    .map(stem);
const sameVerb = (a: string, b: string): boolean => firstWord(a).toLowerCase() === firstWord(b).toLowerCase();

/** Turns of phrase of somebody who explains to listeners. Common practice, no source. */
const TEACHES =
  /\b(?:lecture|exam|quiz|chapter|today we|this evening|we call|is called|let me (?:show|give|tell|begin|sum)|let us (?:begin|sum|look)|remember th(?:is|ese|at)|this means|that is why|for example|you will see|imagine)\b/gi;
const TEACHING_LENGTH = 40;

function isTeaching(sentences: readonly Sentence[]): boolean {
  const signs = sentences.reduce((n, s) => n + (s.text.match(TEACHES)?.length ?? 0), 0);
  return sentences.length >= TEACHING_LENGTH && signs >= 6;
}

/** In a lecture a command is mostly an explanation; what listeners are to do is asked with "please" or has a date. */
const isAssignment = (clause: string, sentence: string, at: string): boolean =>
  /^(?:i|my)\b/i.test(clause) ||
  /\bdue\b/i.test(clause) ||
  (!/^(?:we|let)\b/i.test(clause) &&
    (/\bplease\b/i.test(sentence) || /\d-\d/.test(spokenDate(clause, at)?.due.slice(0, 10) ?? '')) &&
    !/\bby (?:two|three|four|five|\d)/i.test(clause));
