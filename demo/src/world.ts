import fs from 'node:fs';
import path from 'node:path';

/** A recording of the demo world: what is said by whom, and when, in days before the demo starts. */
export type DemoScript = {
  id: string;
  file: string;
  day: number;
  time: string;
  source: 'speak' | 'import';
  /** Whether the result ships with the demo or is made while the visitor watches. */
  isRecognised: boolean;
  title: string | null;
  folder: string | null;
  tags: string[];
  /** How the to-dos begin that the demo person has accepted already. */
  accepted: string[];
  /** Names that the demo person has given to the voices, in the order in which they begin to speak. */
  speakers: string[];
  lines: { speaker: string; text: string; startsParagraph: boolean }[];
};

/** Reads a script: `key: value` lines, `---`, then `Speaker: text`; an empty line is a longer pause. */
export function parseScript(id: string, content: string): DemoScript {
  const [head, body] = content.split(/^---$/m) as [string, string];
  const fields = new Map(
    head
      .trim()
      .split('\n')
      .map((line): [string, string] => {
        const at = line.indexOf(':');
        return [line.slice(0, at).trim(), line.slice(at + 1).trim()];
      }),
  );
  const lines: DemoScript['lines'] = [];
  let isNew = true;
  for (const line of body.trim().split('\n')) {
    const match = /^(\w+): (.+)$/.exec(line);
    if (match) lines.push({ speaker: match[1]!, text: match[2]!, startsParagraph: isNew });
    isNew = !match;
  }
  return {
    id,
    file: fields.get('file')!,
    day: Number(fields.get('day')),
    time: fields.get('time')!,
    source: fields.get('source') === 'import' ? 'import' : 'speak',
    isRecognised: fields.get('recognised') === 'yes',
    title: fields.get('title') ?? null,
    folder: fields.get('folder') ?? null,
    tags: fields.get('tags')?.split(/,\s*/) ?? [],
    accepted: fields.get('accepted')?.split(/,\s*/) ?? [],
    speakers: fields.get('speakers')?.split(/,\s*/) ?? [],
    lines,
  };
}

export const loadWorld = (folder: string): DemoScript[] =>
  fs
    .readdirSync(folder)
    .filter((name) => name.endsWith('.txt'))
    .sort()
    .map((name) => parseScript(path.basename(name, '.txt'), fs.readFileSync(path.join(folder, name), 'utf8')));

/** A slide of the demo's lecture; `from` are the words with which the lecturer turns to it. */
export type DemoSlide = { title: string; from: string; lines: string[] };

/** Reads slides: `# title`, `from: words`, then its lines. */
export const readSlides = (file: string): DemoSlide[] =>
  fs
    .readFileSync(file, 'utf8')
    .split(/^# /m)
    .slice(1)
    .map((block) => {
      const [title, from, ...lines] = block.trim().split('\n') as [string, string, ...string[]];
      return { title, from: from.replace('from: ', ''), lines };
    });

export const FOLDERS = [
  { name: 'Quayside limes', tint: 'petrol' },
  { name: 'School orchard', tint: 'lichen' },
  { name: 'Soil course', tint: 'ochre' },
  { name: 'Home', tint: 'heather' },
] as const;

export const PROJECTS = [
  {
    name: 'Quayside limes',
    otherNames: ['the quay', 'quayside', 'the limes', 'the trench', 'the lock', 'the planting pits'],
  },
  { name: 'School orchard', otherNames: ['the orchard', 'planting day'] },
  { name: 'Soil course', otherNames: ['the exam', 'the lecture', 'the course'] },
  { name: 'Home', otherNames: ['at home', 'the house'] },
] as const;

export const OWN_NAME = 'Tamsin Okwuosa';

export const PEOPLE = [
  { name: 'Bram Vantongeren', otherNames: ['the arborist'] },
  { name: 'Ottoline Reyes', otherNames: ['the engineer', 'the town engineer'] },
  { name: 'Jun Fairweather', otherNames: ['Jun'] },
  { name: 'Idris Malmquist', otherNames: ['Professor Malmquist', 'the professor'] },
  { name: 'Petra Sund', otherNames: ['the dentist'] },
] as const;

/** Who is in which of the recordings that are filed, beside those whose voices have names. */
export const PRESENT: Record<string, string[]> = {
  lecture: ['Idris Malmquist'],
  'voice-message': ['Petra Sund'],
};

/** A note that the demo person has written; `link` is the script of a recording that it leads to. */
export const NOTE = {
  title: 'Which lime for the quay',
  folder: 'Quayside limes',
  before: 'Silver lime stands wind and salt, and nothing sticky drops from it. Agreed on the walk: ',
  link: 'arborist',
  after: '. Ask the nursery for twelve of the same height.',
} as const;

/**
 * The day that is "today" in the demo world: this one, or the day before while this one is younger than the last thing
 * the demo person says today. A recording of the future would stand above all that a visitor records.
 */
export function worldToday(scripts: readonly DemoScript[], now: Date): Date {
  const today = new Date(now.getFullYear(), now.getMonth(), now.getDate());
  const last = scripts
    .map((s) => startOf(s, today))
    .sort()
    .at(-1);
  if (last !== undefined && new Date(last) > now) today.setDate(today.getDate() - 1);
  return today;
}

/** When a recording of the demo world begins: local date and time without a zone, `YYYY-MM-DDThh:mm:ss`. */
export function startOf(script: DemoScript, today: Date): string {
  const date = new Date(today.getFullYear(), today.getMonth(), today.getDate() + script.day);
  const digits = (value: number) => String(value).padStart(2, '0');
  return `${date.getFullYear()}-${digits(date.getMonth() + 1)}-${digits(date.getDate())}T${script.time}`;
}
