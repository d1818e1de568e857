import type { Priority } from '../../contract/todos';
import { type Named, projectIn } from './projects';
import { wordAsAction } from './wording';

/** What is read out of a line, besides its words. */
export const TYPED_PARTS = ['due', 'repeat', 'project', 'who', 'priority'] as const;
export type TypedPart = (typeof TYPED_PARTS)[number];

export type TypedTodo = {
  text: string;
  /** `me`, or the name of a known person who is to do it. */
  who: string | null;
  due: string | null;
  project: string | null;
  priority: Priority | null;
  repeat: string | null;
  /** A known person whom the line names without saying that they are to do it. */
  namedPerson: string | null;
};

type Known = { projects?: readonly Named[]; people?: readonly Named[] };

/** How people begin a line that is for themselves: "need to", "I have to", "don’t forget to". */
const OPENING =
  /^(?:i\s+|i['’]ve\s+|we\s+)?(?:(?:need|have|got|want|ought|remember)\s+to|must|remind\s+me\s+to|don['’]?t\s+forget\s+to)\s+(?=\p{L})/iu;

const PRIORITY_WORDS: readonly (readonly [Priority, string])[] = [
  ['low', 'low priority|not urgent|no hurry|no rush|whenever there is time'],
  ['middle', 'medium priority|normal priority'],
  ['high', '(?:very )?urgent(?:ly)?|high priority|top priority|as soon as possible|asap'],
];
/** "The letter is urgent" says something about the letter. */
const SAYS_OF_A_THING = /\b(?:is|are|was|not|how|an?|the|very|something|anything)$/i;

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const squeezed = (text: string): string => text.replace(/\s+/g, ' ').trim();
const ARTICLE = '(?:the |my |our )?';

/** A priority that stands apart: at the beginning with a colon or comma, or at the end of the line or of a part of it. */
function takePriority(line: string): { priority: Priority | null; rest: string } {
  for (const [priority, words] of PRIORITY_WORDS) {
    const first = new RegExp(`^(?:${words})\\s?[:,–-] ?`, 'i').exec(line);
    if (first) return { priority, rest: line.slice(first[0].length) };
    const apart = new RegExp(`, ?(?:${words})(?=,|$)`, 'i').exec(line) ?? new RegExp(` (?:${words})$`, 'i').exec(line);
    if (apart && !SAYS_OF_A_THING.test(line.slice(0, apart.index))) {
      return { priority, rest: line.slice(0, apart.index) + line.slice(apart.index + apart[0].length) };
    }
  }
  return { priority: null, rest: line };
}

/** What a person is called: the whole name, other names, and the first name where nobody else has it. */
function callsOf(people: readonly Named[]): { name: string; call: string }[] {
  const first = (name: string) => name.split(' ')[0]!;
  return people
    .flatMap(({ name, otherNames = [] }) => {
      const isOnly = people.filter((p) => first(p.name) === first(name)).length === 1;
      return [name, ...otherNames, ...(isOnly ? [first(name)] : [])].map((call) => ({ name, call }));
    })
    .sort((a, b) => b.call.length - a.call.length);
}

/** Who is to do it: "Jun: print flyers", "Jun should print flyers", "print flyers, assigned to Jun". */
function takeWho(line: string, people: readonly Named[]): { who: string | null; named: string | null; rest: string } {
  let named: string | null = null;
  for (const { name, call } of callsOf(people)) {
    const one = escaped(call);
    const before = new RegExp(`^${one}(?: ?: ?| (?:to|should|must|needs to|has to|will|shall) )(?=\\S)`, 'i').exec(
      line,
    );
    if (before) return { who: name, named: null, rest: line.slice(before[0].length) };
    const behind = new RegExp(`,? (?:assign(?:ed)? (?:it )?to|to be done by) ${one}(?![\\p{L}\\p{N}])`, 'iu').exec(
      line,
    );
    if (behind) {
      return {
        who: name,
        named: null,
        rest: line.slice(0, behind.index) + line.slice(behind.index + behind[0].length),
      };
    }
    if (!named && new RegExp(`(?<![\\p{L}\\p{N}])${one}(?![\\p{L}\\p{N}])`, 'iu').test(line)) named = name;
  }
  return { who: null, named, rest: line };
}

/** The names of a project, and the words of its name that no other project has: "orchard" of "School orchard". */
function wordsOfProject(project: Named, all: readonly Named[]): string[] {
  const words = (p: Named) => p.name.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  const own = words(project).filter((w) => w.length >= 4 && all.filter((p) => words(p).includes(w)).length === 1);
  return [project.name, ...(project.otherNames ?? []).map((n) => n.replace(/^(?:the|my|our) /i, '')), ...own];
}

/** A project that is named for the line: it goes from the text. One that is part of the sentence stays there too. */
function takeProject(text: string, projects: readonly Named[]): { project: string | null; rest: string } {
  for (const project of projects) {
    for (const word of wordsOfProject(project, projects).sort((a, b) => b.length - a.length)) {
      const name = `${ARTICLE}${escaped(word)}`;
      const first = new RegExp(`^(?:for |project )?${name} ?[:,] ?(?=\\S)`, 'i').exec(text);
      if (first) return { project: project.name, rest: text.slice(first[0].length) };
      const last = new RegExp(`(?:,| (?:for|in|under|project)(?: project)?) ?${name}$`, 'i').exec(text);
      if (last) return { project: project.name, rest: text.slice(0, last.index) };
    }
  }
  return { project: projectIn(text, projects), rest: text };
}

const capitalised = (text: string): string => (text ? text.charAt(0).toUpperCase() + text.slice(1) : '');

/**
 * A to-do from one line in plain words: "call Jun about the gloves tomorrow at nine for the orchard, urgent".
 * @param at local time at which it is written: `2026-03-09T07:40`
 * @param known projects and people; nothing else is read as one
 * @param asText parts that are not read: their words stay in the text
 */
export function typedTodo(
  line: string,
  at: string,
  known: Known = {},
  asText: ReadonlySet<TypedPart> = new Set(),
): TypedTodo {
  const { projects = [], people = [] } = known;
  const whole = squeezed(line).replace(/[.,;]$/, '');
  const urgent = asText.has('priority') ? { priority: null, rest: whole } : takePriority(whole);
  const given = takeWho(squeezed(urgent.rest), people);
  const isGiven = given.who !== null && !asText.has('who');
  const plain = squeezed(isGiven ? given.rest : urgent.rest).replace(OPENING, '');
  const item = wordAsAction(plain, at, { date: !asText.has('due'), repeat: !asText.has('repeat') });
  const worded = item?.text ?? capitalised(plain);
  const filed = asText.has('project') ? { project: null, rest: worded } : takeProject(worded, projects);
  return {
    text: capitalised(squeezed(filed.rest).replace(/[,;]$/, '')),
    who: isGiven ? given.who : 'me',
    namedPerson: isGiven ? null : (given.who ?? given.named),
    ...{ due: item?.due ?? null, repeat: item?.repeat ?? null },
    ...{ project: filed.project, priority: urgent.priority },
  };
}
