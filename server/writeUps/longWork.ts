import type { MadeSection, Template } from '@immeld/core/contract/templates';
import type { Sentence } from '@immeld/core/language/sentences';
import { type Part, partsOf } from '@immeld/core/language/parts';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Source, makeWriteUp } from '@immeld/core/writeup/makeWriteUp';
import { type OneOfSeveral, makeWriteUpOfSeveral } from '@immeld/core/writeup/together';
import { topicMapOf } from '@immeld/core/writeup/topicMap';
import { inWorker } from '../jobs/inWorker';

type TopicParts = ReturnType<typeof topicMapOf>;
type Headings = Parameters<typeof topicMapOf>[1];

export type LongTask =
  | { kind: 'write-up'; template: Template; source: Source }
  | { kind: 'several'; template: Template; sources: OneOfSeveral[] }
  | { kind: 'parts'; sentences: readonly Sentence[] }
  | { kind: 'map'; passages: readonly Passage[]; headings: Headings };
type Results = { 'write-up': MadeSection[]; several: MadeSection[]; parts: Part[]; map: TopicParts };

/** From so many words on it takes so long that others would notice. */
const LONG_WORDS = 6000;

export function doTask(task: LongTask): Results[LongTask['kind']] {
  switch (task.kind) {
    case 'write-up':
      return makeWriteUp(task.template, task.source);
    case 'several':
      return makeWriteUpOfSeveral(task.template, task.sources);
    case 'parts':
      return partsOf(task.sentences);
    case 'map':
      return topicMapOf(task.passages, task.headings);
  }
}

/** Does what a few words need at once, and what hours of talk need beside the server's own thread. */
export async function done<T extends LongTask>(task: T): Promise<Results[T['kind']]> {
  if (wordsIn(task) < LONG_WORDS) return doTask(task) as Results[T['kind']];
  return inWorker<Results[T['kind']]>('writeUpWorker', task);
}

function wordsIn(task: LongTask): number {
  const inPassages = (passages: readonly Passage[]) => passages.reduce((sum, p) => sum + p.words.length, 0);
  switch (task.kind) {
    case 'write-up':
      return inPassages(task.source.passages);
    case 'several':
      return task.sources.reduce((sum, s) => sum + inPassages(s.passages), 0);
    case 'parts':
      return task.sentences.reduce((sum, s) => sum + s.text.split(' ').length, 0);
    case 'map':
      return inPassages(task.passages);
  }
}
