import nlp from 'compromise';
import { spokenDate } from '../spokenDates';
import { isActionVerb } from './actionVerbs';

const DETERMINED =
  /^(?:the|an?|my|our|your|his|her|their|this|that|these|those|some|two|three|four|five|six|seven|eight|nine|ten|twelve|twenty) /i;
/** Verbs that a noun phrase takes along when it ends a sentence: "the contract ends". */
const TRAILING_VERB = / (?:ends?|begins?|starts?|closes?|opens?|comes?|goes|is|are|was|broke|works?)$/i;
const OF_TIME =
  /\b(?:days?|weeks?|months?|years?|hours?|minutes?|mornings?|afternoons?|evenings?|nights?|weekend|time|first|last|next|list|lot)$/i;
const PREPOSITION = /\b(?:of|to|in|on|at|for|with|by|from|about|into|under|over|before|after|until|near|through) $/i;
const NO_NAME =
  /^(?:I|I'm|I'll|I've|I'd|Mon|Tues|Wednes|Thurs|Fri|Satur|Sun|January|February|March|April|May|June|July|August|September|October|November|December|Then|There|They|That|This|The|We|You|He|She|It|And|But|So|Not|No|Yes|Please|Can|Could|Would|Will|Let|Our|My|If|When|What|Who|Where|How|Why|In|On|At|For|To|From|Now|First|Next|Okay|Sorry|Good|Fine|Great|Maybe|Perhaps|Remember|Every|Each|Actually|Someone|Somebody|Nobody)(?:day)?$/;

/** The things that a text names with an article or the like, in their order, without times. */
export function thingsIn(text: string): { thing: string; isAfterPreposition: boolean }[] {
  const phrases = nlp(text).nouns().out('array') as string[];
  return phrases
    .map((phrase) => phrase.replace(/(?<![.,!?;:])[.,!?;:]+$/, '').replace(TRAILING_VERB, ''))
    .filter((phrase) => DETERMINED.test(phrase) && !OF_TIME.test(phrase))
    .map((thing) => ({ thing, isAfterPreposition: PREPOSITION.test(text.slice(0, text.indexOf(thing))) }));
}

/** Who can be told something, and is no "it". A list of our own. */
export const SOMEBODY =
  /\b(?:doctor|dentist|nurse|engineer|teacher|lecturer|professor|student|caretaker|gardener|builder|driver|neighbour|neighbor|boss|manager|colleague|customer|client|patient|volunteer|child|children|boy|girl|man|men|woman|women|person|people|parent|mother|father|mum|dad|sister|brother|son|daughter|uncle|aunt|cousin|friend|guest|mayor|council|office|school|firm|company|shop|nursery|team|group|family|bank|library|town|police|station|arborist|plumber|painter|speaker|supplier)s?$/i;
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

/** What was named longer ago is no longer clear. */
const CLEAR_WORDS = 18;

const SEVERAL = /[^s]s$|^(?:these|those|two|three|four|five|six|ten|twelve|twenty) |(?:children|people|men|women)$/i;

/** What has been talked of so far: what "it", "them", "him" and "then" can mean. */
export class Scene {
  /** What was said last, with the number of words up to its end. */
  private heard: { text: string; end: number }[] = [];
  private words = 0;
  private person: string | null = null;
  private date: string | null = null;

  constructor(private readonly at: string) {}

  /** Takes in a sentence or clause. Its things are only looked for when something points back at them. */
  hear(text: string): void {
    this.words += text.split(/\s+/).length;
    this.heard = [...this.heard.filter((h) => this.words - h.end <= CLEAR_WORDS), { text, end: this.words }];
    this.person = peopleNamed(text).at(-1) ?? this.person;
    this.date = spokenDate(text, this.at)?.due ?? this.date;
  }

  /** The thing that was named last; of a clause the first that follows no preposition. */
  private recent(kind: 'thing' | 'things' | 'group'): string | null {
    for (const { text } of [...this.heard].reverse()) {
      const all = thingsIn(text);
      const group = all.filter((t) => SOMEBODY.test(t.thing) && SEVERAL.test(t.thing)).at(-1);
      const found = all.filter((t) => !SOMEBODY.test(t.thing));
      const main = found.find((t) => !t.isAfterPreposition) ?? found.at(-1);
      if (kind === 'group' ? group : main && SEVERAL.test(main.thing) === (kind === 'things'))
        return (kind === 'group' ? group : main)!.thing;
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
    let resolved = text;
    const { person } = this;
    const tells = TELLS.test(text.split(' ')[0]!);
    const thing = /\bit\b/.test(text) && !(tells && /^\p{L}+ it\b/u.test(text)) ? this.recent('thing') : null;
    const things = /\bthem\b/.test(text) ? this.recent(tells ? 'group' : 'things') : null;
    if (thing) resolved = resolved.replace(/(?<=\p{L} )it\b(?! (?:is|was|will|has|rains))/u, neutral(thing));
    if (things) resolved = resolved.replace(/(?<=\p{L} )them\b/u, neutral(things));
    if (person) {
      resolved = resolved.replace(/(?<=\p{L} )him\b/u, person);
      resolved = resolved.replace(
        /(?<=\p{L} )her(?=$|[.,]| (?:\p{Ll}+ly|about|at|to|for|on|in|with|if|when|whether|that|the|a|an|my)\b| (\p{Ll}+) (?:the|a|an|my|it|this|that))/u,
        person,
      );
    }
    return resolved;
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
