import { templateSchema } from '../contract/templates';
import type { Passage } from '../transcript/manuscript';
import { writeUpAsNote } from './asNote';
import { type OneOfSeveral, makeWriteUpOfSeveral } from './together';

const ids = [1, 2, 3].map((n) => `00000000-0000-4000-8000-00000000000${n}`);
const passage = (text: string, startMs: number, speaker: string | null = null): Passage => ({
  ...{ speaker, startMs, endMs: startMs + 4000, startsParagraph: false },
  words: text
    .split(' ')
    .map((word, i) => ({ text: word, startMs: startMs + i * 200, endMs: startMs + i * 200 + 180, confidence: 1 })),
});
const one = (at: number, title: string, texts: string[], rest: Partial<OneOfSeveral> = {}): OneOfSeveral => ({
  ...{ recordingId: ids[at]!, title, slips: [], todos: [] },
  passages: texts.map((t, i) => passage(t, i * 5000, 'Speaker 1')),
  ...rest,
});
const template = (section: object) => templateSchema.validateSync({ name: 'T', sections: [section] });
const todo = { id: ids[2]!, text: 'Order stakes', who: 'me', due: null, project: null, startMs: 7000, isDone: false };

const several = [
  one(0, 'Monday', ['The limes need water along the quay every day', 'and nobody waters them'], {
    slips: [{ kind: 'aside', mark: null, startMs: 1000, endMs: null, text: 'Ask the school' }],
  }),
  one(1, 'Tuesday', ['We decided to order forty stakes for the limes.'], {
    todos: [todo, { ...todo, id: ids[1]!, startMs: null }],
  }),
];
const linesOf = (section: object) =>
  makeWriteUpOfSeveral(template(section), several, null).flatMap((s) => s.groups.flatMap((g) => g.lines));

describe('a write-up of several recordings', () => {
  it('gives each line back to its recording and moment', () => {
    expect(linesOf({ content: 'decisions' })).toMatchObject(
      [{ recordingId: ids[1], startMs: 0, text: /forty stakes/ }].map((l) => ({
        ...l,
        text: expect.stringMatching(l.text) as string,
      })),
    );
    expect(linesOf({ content: 'asides' })).toMatchObject([{ recordingId: ids[0], startMs: 1000 }]);
    expect(linesOf({ content: 'all-todos', form: 'checks' })).toMatchObject([
      { recordingId: ids[1], startMs: 7000 },
      { recordingId: ids[1], startMs: null },
    ]);
  });

  it('does not run the end of one into the beginning of the next', () => {
    const texts = linesOf({ content: 'text', form: 'text' }).map((l) => l.text);
    expect(texts).toEqual([
      'The limes need water along the quay every day and nobody waters them.',
      'We decided to order forty stakes for the limes.',
    ]);
  });

  it('has the recordings as its parts, and tells their unnamed speakers apart', () => {
    expect(linesOf({ content: 'parts' }).map((l) => [l.text, l.recordingId])).toEqual([
      ['Monday', ids[0]],
      ['Tuesday', ids[1]],
    ]);
    const [section] = makeWriteUpOfSeveral(template({ content: 'all-todos', grouping: 'part' }), several, null);
    expect(section!.groups.map((g) => g.name)).toEqual(['Tuesday']);
    expect(linesOf({ content: 'text', form: 'text' }).map((l) => l.person)).toEqual([
      'Speaker 1 (Monday)',
      'Speaker 1 (Tuesday)',
    ]);
  });

  it('becomes a note that leads to each of them', () => {
    const note = writeUpAsNote(makeWriteUpOfSeveral(template({ content: 'parts' }), several, null), null);
    expect(JSON.stringify(note).match(/"kind":"recording","id":"[^"]+/g)).toEqual(
      ids.slice(0, 2).map((id) => `"kind":"recording","id":"${id}`),
    );
  });

  it('of very much talk is made too', () => {
    const many = Array.from({ length: 60 }, (_, n) =>
      one(
        0,
        `Day ${n}`,
        Array.from(
          { length: 50 },
          (_u, i) =>
            `The ${['lime', 'quay', 'wall', 'pit', 'stake'][(n * i) % 5]} number ${n} stands beside the ${['lock', 'gate', 'path'][i % 3]}.`,
        ),
      ),
    );
    const [section] = makeWriteUpOfSeveral(template({ content: 'key-points', most: 5 }), many, null);
    expect(section!.groups[0]!.lines).toHaveLength(5);
  });
});
