/** Decisions and open questions in dialogues: precision and recall. Prints a Markdown table. */
import {
  DECISIONS_TEST_SET,
  DECISIONS_DEV_SET,
  type DecisionExample,
} from '../../core/language/evaluation/decisionDialogues';
import { decisionsIn, openQuestionsIn } from '../../core/writeup/findings';

type Kind = 'decisions' | 'open questions';

function figures(examples: readonly DecisionExample[], kind: Kind): string {
  let [wanted, found, right] = [0, 0, 0];
  for (const { sentences } of examples) {
    const isWanted = (s: (typeof sentences)[number]) => (kind === 'decisions' ? s.isDecision : s.isOpen);
    const chosen = new Set<unknown>(kind === 'decisions' ? decisionsIn(sentences) : openQuestionsIn(sentences));
    wanted += sentences.filter(isWanted).length;
    found += chosen.size;
    right += sentences.filter((s) => isWanted(s) && chosen.has(s)).length;
    if (!process.argv.includes('--mistakes') || examples === DECISIONS_TEST_SET) continue;
    for (const s of sentences) {
      if (isWanted(s) !== chosen.has(s))
        process.stderr.write(`${kind} ${isWanted(s) ? 'missed' : 'wrong'}: ${s.text}\n`);
    }
  }
  const [precision, recall] = [right / found, right / wanted];
  const f1 = (2 * precision * recall) / (precision + recall);
  return `${wanted} | ${[precision, recall, f1].map((x) => x.toFixed(2)).join(' | ')}`;
}

console.log('| In dialogues | wanted | precision | recall | F1 |');
console.log('|---|---|---|---|---|');
for (const [name, examples] of [
  ['worked with', DECISIONS_DEV_SET],
  ['untouched', DECISIONS_TEST_SET],
] as const) {
  for (const kind of ['decisions', 'open questions'] as const) {
    console.log(`| ${kind}, ${name} half | ${figures(examples, kind)} |`);
  }
}
