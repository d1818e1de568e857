import { dayInWords } from '@immeld/core/formats/times';
import { PRIORITY_NAMES, type Todo } from '@immeld/core/contract/todos';
import { markdownText as plain } from '@immeld/core/formats/markdownText';

/** To-dos as a check list in Markdown (task list items of GFM), by project, with who, when and where it was said. */
export function todosAsCheckList(todos: readonly Todo[], address: string): string {
  const groups = new Map<string, Todo[]>();
  for (const todo of todos) {
    const name = todo.project ?? 'No project';
    groups.set(name, [...(groups.get(name) ?? []), todo]);
  }
  const names = [...groups.keys()].sort(
    (a, b) => Number(a === 'No project') - Number(b === 'No project') || a.localeCompare(b),
  );
  const line = (t: Todo): string => {
    const more = [
      t.who && t.who !== 'me' ? t.who : null,
      t.due ? `by ${dayInWords(t.due)}` : null,
      t.priority ? `${PRIORITY_NAMES[t.priority]} priority` : null,
    ].filter(Boolean);
    const link = t.recordingId
      ? ` ([${plain(t.recordingTitle ?? 'said in a recording')}](${address}/recordings/${t.recordingId}?at=${t.startMs ?? 0}))`
      : '';
    const notes = t.notes
      ? `\n${t.notes
          .split('\n')
          .map((n) => `      ${plain(n)}`)
          .join('\n')}`
      : '';
    return `- [${t.isDone ? 'x' : ' '}] ${plain(t.text)}${more.length ? ` (${plain(more.join(', '))})` : ''}${link}${notes}`;
  };
  return names.map((name) => `## ${plain(name)}\n\n${groups.get(name)!.map(line).join('\n')}\n`).join('\n');
}
