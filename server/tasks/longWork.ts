import type { MadeSection, Template } from '@immeld/core/contract/templates';
import type { Sentence } from '@immeld/core/language/sentences';
import { type Part, partsOf } from '@immeld/core/language/parts';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Source, makeWriteUp } from '@immeld/core/writeup/makeWriteUp';
import { type OneOfSeveral, makeWriteUpOfSeveral } from '@immeld/core/writeup/together';
import { topicMapOf } from '@immeld/core/writeup/topicMap';

type TopicParts = ReturnType<typeof topicMapOf>;
type Headings = Parameters<typeof topicMapOf>[1];

export type LongTask =
  | { kind: 'write-up'; template: Template; source: Source }
  | { kind: 'several'; template: Template; sources: OneOfSeveral[] }
  | { kind: 'parts'; sentences: readonly Sentence[] }
  | { kind: 'map'; passages: readonly Passage[]; headings: Headings };
export type LongResults = { 'write-up': MadeSection[]; several: MadeSection[]; parts: Part[]; map: TopicParts };

export function doLongTask(task: LongTask): LongResults[LongTask['kind']] {
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
