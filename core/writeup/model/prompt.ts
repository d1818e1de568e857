import type { ChatMessage } from '../../contract/languageModel';
import type { Content, Section, Template } from '../../contract/templates';
import type { Sentence } from '../../language/sentences';
import { summarise } from '../../language/summary';
import { clockTime } from '../../formats/times';

/** More words are not sent at once: of a longer recording the sentences that stand for it. */
export const MAX_WORDS_SENT = 9000;
const STRETCH = 200;

const CONTENT_WORDS: Record<Content, string> = {
  summary: 'a summary',
  'key-points': 'the key points',
  decisions: 'what was decided',
  'own-todos': 'what the person who recorded has to do',
  'others-todos': 'what others have to do, each with who',
  'all-todos': 'what is to be done, each with who',
  'next-steps': 'the next steps with their dates',
  questions: 'the questions that nobody answered',
  asked: 'the questions that were asked',
  'dates-and-numbers': 'dates and numbers',
  terms: 'names and terms, each with its explanation',
  asides: 'asides of the speaker',
  marked: 'what is most important',
  links: 'links that are mentioned',
  quotes: 'telling quotations by person, word for word',
  parts: 'the parts, in their order',
  text: 'the whole text, tidied',
  letter: 'the letter that was dictated, as it would be sent, without what was said to the writer',
};
const FORM_WORDS: Record<Section['form'], string> = {
  text: 'as running text',
  points: 'as points, each on a line that begins with "- "',
  numbered: 'as numbered lines',
  checks: 'as points, each on a line that begins with "- "',
  table: 'as lines of the form "- who or what: text"',
};
const WORDING_WORDS: Record<Template['wording'], string> = {
  'as said': 'Keep to the words that were said.',
  reported: 'Report what was said in the third person, with the names of who said it.',
  formal: 'Write formally.',
  friendly: 'Write in a friendly way.',
  brief: 'Write as briefly as possible.',
};

/** The sentences that are sent, in their order, within the length that is. */
export function sentencesToSend(sentences: readonly Sentence[]): Sentence[] {
  const count = (all: readonly Sentence[]) => all.reduce((sum, s) => sum + s.text.split(/\s+/).length, 0);
  const words = count(sentences);
  if (words <= MAX_WORDS_SENT) return [...sentences];
  const share = MAX_WORDS_SENT / words;
  const chosen: Sentence[] = [];
  // Stretch by stretch, so that no part of it is left out.
  for (let from = 0; from < sentences.length; from += STRETCH) {
    const stretch = sentences.slice(from, from + STRETCH);
    chosen.push(...summarise(stretch, Math.max(1, Math.floor(stretch.length * share))));
  }
  while (count(chosen) > MAX_WORDS_SENT) chosen.pop();
  return chosen;
}

/** What a language model is asked: numbered sentences, the sections of the template, and to say what each line rests on. */
export function promptFor(template: Template, sentences: readonly Sentence[]): ChatMessage[] {
  const sections = template.sections.map(({ heading, content, form, most, unit }) => {
    const length = most === null ? '' : `, at most ${most} ${most === 1 ? unit.replace(/s$/, '') : unit}`;
    return `## ${heading || template.name}\n(${CONTENT_WORDS[content]}, ${FORM_WORDS[form]}${length})`;
  });
  const said = sentences.map(({ text, startMs, speaker }, i) => {
    const who = [startMs === null ? null : clockTime(startMs), speaker].filter(Boolean).join(', ');
    return `[${i + 1}]${who ? ` (${who})` : ''} ${text}`;
  });
  return [
    {
      role: 'system',
      content: [
        'You write up what was said in a recording. You get its sentences, each with a number.',
        'Use nothing but what was said. End each sentence or line that you write with the numbers of the sentences it rests on, in square brackets, for example [12] or [3, 7].',
        'Write exactly the sections that are asked for, each under its heading on a line that begins with "## ", in their order. Leave out a section of which nothing was said.',
        WORDING_WORDS[template.wording],
      ].join('\n'),
    },
    { role: 'user', content: `Sections:\n${sections.join('\n')}\n\nSentences:\n${said.join('\n')}` },
  ];
}
