import { longTasks } from '../tasks/taskPool';
import { type DocumentResults, type DocumentTask, makeDocument } from './makeDocument';

/** Characters of JSON from which on a document would keep others waiting: some minutes of talk. */
const LONG = 100_000;

/** Makes a document of a recording; a long one in a thread of its own. */
export const document = async <T extends DocumentTask>(task: T): Promise<DocumentResults[T['kind']]> =>
  task.source.json.length < LONG ? (makeDocument(task) as DocumentResults[T['kind']]) : longTasks.run<T>(task);
