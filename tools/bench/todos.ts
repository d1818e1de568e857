/** How well to-dos are found in memos and dialogues. Prints a Markdown table; `--mistakes` lists those of the working half. */
import {
  OWN_NAME,
  PROJECTS,
  SAID_AT,
  type TodoExample,
  readTodoExamples,
} from '../../core/language/evaluation/todoExamples';
import { type TodoMetrics, precisionRecall, todoMetrics } from '../../core/language/evaluation/todoMetrics';
import { TODO_MEMOS_TEST_SET } from '../../core/language/evaluation/todoMemosTestSet';
import { TODO_MEMOS_DEV_SET } from '../../core/language/evaluation/todoMemosDevSet';
import { findTodos } from '../../core/language/todos/findTodos';

const find = ({ sentences }: TodoExample) =>
  findTodos(sentences, { at: SAID_AT, projects: PROJECTS, ownName: OWN_NAME });
const percent = (share: number) => `${(share * 100).toFixed(0)} %`;

function row(name: string, figures: TodoMetrics): string {
  const { precision, recall, f1 } = precisionRecall(figures);
  const of = (part: 'who' | 'due' | 'project' | 'repeat') => percent(figures[part] / figures.right);
  return `| ${name} | ${figures.wanted} | ${percent(precision)} | ${percent(recall)} | ${f1.toFixed(2)} | ${of('due')} | ${of('who')} | ${of('project')} | ${of('repeat')} |`;
}

const isDialogue = ({ sentences }: TodoExample) => sentences.some((s) => s.speaker);
const working = readTodoExamples(TODO_MEMOS_DEV_SET);
console.log('| to-dos found in | wanted | precision | recall | F1 | date | who | project | repeat |');
console.log('|---|---|---|---|---|---|---|---|---|');
console.log(
  row(
    'memos to work with',
    todoMetrics(
      working.filter((e) => !isDialogue(e)),
      find,
    ),
  ),
);
console.log(row('dialogues to work with', todoMetrics(working.filter(isDialogue), find)));
if (process.argv.includes('--mistakes')) {
  for (const mistake of todoMetrics(working, find).mistakes) process.stderr.write(`${mistake}\n`);
} else {
  const untouched = readTodoExamples(TODO_MEMOS_TEST_SET);
  console.log(
    row(
      'memos, the untouched half',
      todoMetrics(
        untouched.filter((e) => !isDialogue(e)),
        find,
      ),
    ),
  );
  console.log(row('dialogues, the untouched half', todoMetrics(untouched.filter(isDialogue), find)));
  console.log(row('**the untouched half**', todoMetrics(untouched, find)));
}
