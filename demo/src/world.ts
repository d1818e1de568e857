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
    lines,
  };
}

export const loadWorld = (folder: string): DemoScript[] =>
  fs
    .readdirSync(folder)
    .filter((name) => name.endsWith('.txt'))
    .sort()
    .map((name) => parseScript(path.basename(name, '.txt'), fs.readFileSync(path.join(folder, name), 'utf8')));

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
