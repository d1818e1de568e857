import nlp from 'compromise';
import { spokenDate } from '../spokenDates';
import { isActionVerb } from './actionVerbs';
import { isCalled } from './people';

const DETERMINED =
  /^(?:the|an?|my|our|your|his|her|their|this|that|these|those|some|two|three|four|five|six|seven|eight|nine|ten|twelve|twenty) /i;
/** Verbs that a noun phrase takes along when it ends a sentence: "the contract ends". */
const TRAILING_VERB = / (?:ends?|begins?|starts?|closes?|opens?|comes?|goes|is|are|was|broke|works?)$/i;
const OF_TIME =
  /\b(?:days?|weeks?|months?|years?|hours?|minutes?|mornings?|afternoons?|evenings?|nights?|weekend|time|first|last|next|list|lot)$/i;
/** What is no thing to do something with, though it stands with an article: sides, days, amounts, languages. */
const NO_THING =
  /\b(?:left|right|rest|whole|other|same|way|thing|things|stuff|kind|sort|bit|end|top|bottom|front|back|middle|side|point|room|place|today|tomorrow|tonight|yesterday|english|french|german|\p{L}+(?:th|teenth|tieth)|second|third|noon|midnight|quarter|half|\p{L}+day)$|\b(?:past|o'clock|hundred|thousand)\b/iu;
const PREPOSITION = /\b(?:of|to|in|on|at|for|with|by|from|about|into|under|over|before|after|until|near|through) $/i;
const NO_NAME =
  /^(?:I|I'm|I'll|I've|I'd|Mon|Tues|Wednes|Thurs|Fri|Satur|Sun|January|February|March|April|May|June|July|August|September|October|November|December|Then|There|They|That|This|The|We|You|He|She|It|And|But|So|Not|No|Yes|Please|Can|Could|Would|Will|Let|Our|My|If|When|What|Who|Where|How|Why|In|On|At|For|To|From|Now|First|Next|Okay|Sorry|Good|Fine|Great|Maybe|Perhaps|Remember|Every|Each|Actually|Someone|Somebody|Nobody|Christmas|Easter|Uncle|Auntie|Aunt|Mr|Mrs|Ms|Dr|Miss|Mister|Mum|Dad)(?:day)?$/;

/** The things that a text names with an article or the like, in their order, without times. */
export function thingsIn(text: string): { thing: string; isAfterPreposition: boolean }[] {
  const phrases = nlp(text).nouns().out('array') as string[];
  return phrases
    .map((phrase) => phrase.replace(/(?<![.,!?;:])[.,!?;:]+$/, '').replace(TRAILING_VERB, ''))
    .filter((phrase) => DETERMINED.test(phrase) && !OF_TIME.test(phrase) && !NO_THING.test(phrase))
    .map((thing) => ({ thing, isAfterPreposition: PREPOSITION.test(text.slice(0, text.indexOf(thing))) }));
}

/** Who can be told something, and is no "it". A list of our own. */
export const SOMEBODY =
  /\b(?:doctor|dentist|nurse|engineer|teacher|lecturer|professor|student|caretaker|gardener|builder|driver|neighbour|neighbor|boss|manager|colleague|customer|client|patient|volunteer|child|children|boy|girl|man|men|woman|women|person|people|parent|mother|father|mum|dad|sister|brother|son|daughter|uncle|aunt|cousin|friend|guest|mayor|council|office|school|firm|company|shop|nursery|team|group|family|bank|library|town|police|station|arborist|plumber|painter|speaker|supplier|wife|husband|partner|gran|granny|grandad|grandma|grandpa|bloke|fellow|lad|lass|lady|guy|kid|baby|photographer|guest)s?$/i;
const TELLS = /^(?:tell|ask|remind|inform|warn|thank|invite|show|meet|help|email|text|phone|ring)$/i;

/** People who are named: words with a capital that open no sentence, or open it before a verb. */
export function peopleNamed(text: string): string[] {
  const names: string[] = [];
  for (const match of text.matchAll(/(^|[.?!]\s+|[^.?!]\s)(\p{Lu}[\p{Ll}'-]+)(?:, | (\p{Ll}+))?/gu)) {
    const [, before, name = '', next = ''] = match;
    const opens = before === '' || /[.?!]/.test(before!);
    if (
      NO_NAME.test(name) ||
      (opens &&
        (isActionVerb(name) ||
          !/^(?:is|was|will|has|said|says|wants|comes|promised|agreed|could|can|does|needs|and|thinks)$/.test(next)))
    )
      continue;
    names.push(name);
  }
  return names;
}

/** What else has a capital: places, holidays, languages, and the title that stands before a name. */
const NOT_A_PERSON = '#Place|#Demonym|#Month|#Holiday|#Organization|#Honorific'.split('|');
const isPerson = (name: string): boolean => {
  const word = nlp(name);
  return !NOT_A_PERSON.some((tag) => word.has(tag));
};

/** Who was named last that "him" or "her" can be, as far as the name tells. */
const lastPerson = (names: readonly string[], pronoun: 'him' | 'her'): string | null =>
  names.findLast((name) => !nlp(name).has(pronoun === 'him' ? '#FemaleName' : '#MaleName')) ?? null;

/** A pronoun stands for the object of what is to be done only so near its beginning. */
const MAX_BEFORE = 5;
const objectPart = (text: string): string => {
  const clause = text.split(/[,;.?!]/, 1)[0]!;
  return clause
    .split(' ')
    .slice(0, MAX_BEFORE + 1)
    .join(' ');
};

/** What was named longer ago is no longer clear. */
const CLEAR_WORDS = 18;

const SEVERAL = /[^s]s$|^(?:these|those|two|three|four|five|six|ten|twelve|twenty) |(?:children|people|men|women)$/i;

/** What has been talked of so far: what "it", "them", "him" and "then" can mean. */
export class Scene {
  /** What was said last, with the number of words up to its end. */
  private heard: { text: string; end: number }[] = [];
  private words = 0;
  private people: string[] = [];
  private date: string | null = null;

  /** @param present who takes part and is called "you", not "him" */
  constructor(
    private readonly at: string,
    private readonly present: readonly string[] = [],
  ) {}

  /** Takes in a sentence or clause. Its things are only looked for when something points back at them. */
  hear(text: string): void {
    this.words += text.split(/\s+/).length;
    this.heard = [...this.heard.filter((h) => this.words - h.end <= CLEAR_WORDS), { text, end: this.words }];
    this.people.push(
      ...peopleNamed(text).filter((name) => isPerson(name) && !this.present.some((p) => isCalled(p, name))),
    );
    this.date = spokenDate(text, this.at)?.due ?? this.date;
  }

  /**
   * The thing that was named last, after no preposition; null where two of the kind were named beside each other, for a
   * wrong one is worse than the pronoun.
   */
  private recent(kind: 'thing' | 'things' | 'group'): string | null {
    for (const { text } of [...this.heard].reverse()) {
      const all = thingsIn(text);
      const isWanted = ({ thing, isAfterPreposition }: (typeof all)[number]): boolean =>
        kind === 'group'
          ? SOMEBODY.test(thing) && SEVERAL.test(thing)
          : !SOMEBODY.test(thing) && !isAfterPreposition && SEVERAL.test(thing) === (kind === 'things');
      const found = all.filter(isWanted);
      if (found.length) return found.length > 1 && kind !== 'group' ? null : found.at(-1)!.thing;
    }
    return null;
  }

  get lastDate(): string | null {
    return this.date;
  }

  /** A wording with its pronouns replaced by what they mean, where that is clear. */
  resolve(text: string, isOtherSpeaker: boolean): string {
    const neutral = (thing: string) =>
      (isOtherSpeaker ? thing.replace(/^(?:my|our|your) /i, 'the ') : thing)
        .replace(/^an? /i, 'the ')
        .replace(/^(?:The|My|Our|Your|His|Her|Their|This|That|These|Those)\b/, (word) => word.toLowerCase());
    const head = objectPart(text);
    let resolved = head;
    const tells = TELLS.test(text.split(' ')[0]!);
    const thing = /\bit\b/.test(head) && !(tells && /^\p{L}+ it\b/u.test(head)) ? this.recent('thing') : null;
    const things = /\bthem\b/.test(head) ? this.recent(tells ? 'group' : 'things') : null;
    if (thing) resolved = resolved.replace(/(?<=\p{L} )it\b(?! (?:is|was|will|has|rains))/u, neutral(thing));
    if (things) resolved = resolved.replace(/(?<=\p{L} )them\b/u, neutral(things));
    const him = /\bhim\b/.test(head) ? lastPerson(this.people, 'him') : null;
    if (him) resolved = resolved.replace(/(?<=\p{L} )him\b/u, him);
    const her = /\bher\b/.test(head) ? lastPerson(this.people, 'her') : null;
    if (her)
      resolved = resolved.replace(
        /(?<=\p{L} )her(?=$|[.,]| (?:\p{Ll}+ly|about|at|to|for|on|in|with|if|when|whether|that|the|a|an|my)\b| (\p{Ll}+) (?:the|a|an|my|it|this|that))/u,
        her,
      );
    return `${resolved}${text.slice(head.length)}`;
  }

  /** "By then", "before that", "a week before that": the date spoken of, and the wording without it. */
  thenIn(action: string): { action: string; due: string | null } {
    const match = /,? ?\b(?:(an?|one|two|three) (day|week)s? before|by|until|till|before) (?:then|that)\b/i.exec(
      action,
    );
    if (!match || !this.date) return { action, due: null };
    const rest = `${action.slice(0, match.index)}${action.slice(match.index + match[0].length)}`.trim();
    if (!match[1]) return { action: rest, due: this.date };
    const count = { a: 1, an: 1, one: 1, two: 2, three: 3 }[match[1].toLowerCase()] ?? 1;
    const day = new Date(`${this.date.slice(0, 10)}T00:00:00Z`);
    day.setUTCDate(day.getUTCDate() - count * (match[2]!.toLowerCase() === 'week' ? 7 : 1));
    return { action: rest, due: day.toISOString().slice(0, 10) };
  }
}
