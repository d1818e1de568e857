import type { Sentence } from '../../language/sentences';
import { sentencesOfText } from '../../language/sentences';

/** A labelled to-do, as data/talk/README.md describes it. */
export type LabelledTodo = {
  text: string;
  who: string | null;
  due: string | null;
  dueTime: string | null;
  repeat: string | null;
  project: string | null;
  quote: string;
};
export type LabelledPoint = { text: string; quote: string };

/** One item of labelled talk; fields that its kind has not are left out. */
export type TalkItem = {
  id: string;
  kind: 'memo' | 'dialogue' | 'talk' | 'letter';
  at: string;
  text?: string;
  speaker?: string;
  turns?: { speaker: string; text: string }[];
  people?: { name: string; role?: string; isMe?: boolean }[];
  todos?: LabelledTodo[];
  notTodos?: { quote: string; why: string }[];
  decisions?: LabelledPoint[];
  questions?: LabelledPoint[];
  minutes?: { decisions?: unknown[]; actions?: unknown[]; open?: unknown[]; points?: unknown[] };
  spoken?: string;
  letter?: string;
  asides?: { quote: string; why: string }[];
  parts?: { title: string; firstWords?: string; startQuote?: string }[];
  terms?: { term: string; quote: string }[];
  title?: string;
  summary?: string[];
};

/** Hand A, B or C, told by the id. */
export const handOf = ({ id }: TalkItem): string => id.charAt(0);

export const readTalkFile = (jsonl: string): TalkItem[] =>
  jsonl
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as TalkItem);

/** The sentences of an item, with the speakers of its turns. */
export function sentencesOfItem({ text, spoken, turns }: TalkItem): Sentence[] {
  if (!turns) return sentencesOfText(text ?? spoken ?? '');
  return turns.flatMap((turn) => sentencesOfText(turn.text).map((s) => ({ ...s, speaker: turn.speaker })));
}
