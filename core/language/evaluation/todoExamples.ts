/**
 * Memos and dialogues with their to-dos, invented for this. Lines that begin with ">" are what was said, with "Name: "
 * before the words in dialogues; lines that begin with "-" are the to-dos: wording | who | due | project | repeat.
 */
import type { Sentence } from '../sentences';
import { sentencesOfText } from '../sentences';

/** A Monday morning. */
export const SAID_AT = '2026-03-09T07:40';
export const OWN_NAME = 'Tamsin Okwuosa';
export const PROJECTS = [
  { name: 'Quayside limes', otherNames: ['the quay', 'the trench'] },
  { name: 'School orchard', otherNames: ['the orchard', 'planting day', 'the apples'] },
  { name: 'Soil course', otherNames: ['the exam', 'the course'] },
  { name: 'Home' },
];

export type ExampleTodo = {
  text: string;
  who: string | null;
  due: string | null;
  project: string | null;
  repeat: string | null;
};
export type TodoExample = { said: string; sentences: Sentence[]; todos: ExampleTodo[] };

const SPEAKER = /^(Tamsin|Ottoline|Bram|Jun|Malmquist|Petra): /;

function sentencesIn(lines: readonly string[]): Sentence[] {
  return lines.flatMap((line) => {
    const speaker = SPEAKER.exec(line)?.[1] ?? null;
    return sentencesOfText(line.replace(SPEAKER, '')).map((s) => ({ ...s, speaker }));
  });
}

/** Reads a list of examples. Throws on a line that is neither said nor a to-do. */
export function readTodoExamples(list: string): TodoExample[] {
  return list
    .trim()
    .split(/\n\s*\n/)
    .map((block) => {
      const said: string[] = [];
      const todos: ExampleTodo[] = [];
      for (const line of block.split('\n')) {
        if (line.startsWith('> ')) said.push(line.slice(2));
        else if (line.startsWith('- ')) {
          const [text, who, due, project, repeat] = line
            .slice(2)
            .split('|')
            .map((field) => field.trim());
          const orNull = (field: string | undefined) => (!field || field === '-' ? null : field);
          todos.push({
            ...{ text: text!, who: orNull(who), due: orNull(due), project: orNull(project), repeat: orNull(repeat) },
          });
        } else throw new Error(`Neither said nor to do: ${line}`);
      }
      return { said: said.join('\n'), sentences: sentencesIn(said), todos };
    });
}
