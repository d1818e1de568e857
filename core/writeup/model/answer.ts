import type { Line, MadeSection, Template } from '../../contract/templates';
import { type Sentence, sentencesOfText } from '../../language/sentences';

const CITED = /(?<!\s)\s*\[(\d+(?:\s*[,;–-]\s*\d+)*)\]/g;

/**
 * The write-up that a language model's answer is: its sections by their headings, its lines with the moments of the
 * sentences they name. A line that names none, or one that was not sent, is marked.
 */
export function sectionsOfAnswer(answer: string, template: Template, sentences: readonly Sentence[]): MadeSection[] {
  const made: MadeSection[] = [];
  for (const block of answer.replace(/\r\n?/g, '\n').split(/^#{1,6} /m)) {
    const [first = '', ...rest] = block.split('\n');
    const isBeforeAll =
      made.length === 0 && !answer.trimStart().startsWith('#') && block === answer.split(/^#{1,6} /m)[0];
    const heading = isBeforeAll ? '' : first.trim();
    const body = (isBeforeAll ? block : rest.join('\n')).trim();
    if (!body) continue;
    const asked = template.sections.find((s) => (s.heading || template.name).toLowerCase() === heading.toLowerCase());
    const form = asked?.form ?? (/(?:^|\n)[ \t]*[-*•] /.test(body) ? 'points' : 'text');
    const lines = linesOf(body, form, sentences);
    if (lines.length === 0) continue;
    made.push({
      heading: asked ? asked.heading : heading,
      ...{ form, indent: asked?.indent ?? 0, hasTimes: asked?.hasTimes ?? false, isKept: false },
      groups: [{ name: null, lines }],
    });
  }
  return made;
}

function linesOf(body: string, form: MadeSection['form'], sentences: readonly Sentence[]): Line[] {
  const isRunning = form === 'text';
  const texts = isRunning
    ? // A citation stands behind the full stop or before it; it belongs to the sentence it follows.
      sentencesOfText(body.replace(/([.?!])\s*(\[[\d,;\s–-]+\])/g, ' $2$1')).map((s) => s.text)
    : body.split('\n').map((line) => line.replace(/^\s*(?:[-*•]|\d+[.)])\s+/, '').replace(/^\[[ x]\]\s+/i, ''));
  return texts.flatMap((text): Line[] => {
    const cited = [...text.matchAll(CITED)].flatMap((m) => m[1]!.split(/\D+/).map(Number));
    const words = text
      .replace(CITED, '')
      .replace(/(?<!\s)\s+([.,;:?!])/g, '$1')
      .trim();
    if (!/[\p{L}\p{N}]/u.test(words)) return [];
    const sources = cited.map((n) => sentences[n - 1]);
    const source = sources[0];
    const isUncited = sources.length === 0 || sources.some((s) => s === undefined);
    const [, person, said] = (form === 'table' && /^([^:]{1,60}): (.+)$/.exec(words)) || [];
    return [
      {
        ...{ text: said ?? words, startMs: source?.startMs ?? null, recordingId: null, todoId: null, isDone: false },
        ...{ person: person ?? null, due: null, isUncited },
      },
    ];
  });
}
