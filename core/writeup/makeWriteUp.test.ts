import fs from 'node:fs';
import path from 'node:path';
import { type Template, templateSchema } from '../contract/templates';
import { sentencesOf } from '../language/sentences';
import { stem, wordsOf } from '../language/words';
import type { Passage } from '../transcript/manuscript';
import { unpackModel } from '../understanding/model';
import { writeUpAsMarkdown } from './asMarkdown';
import { writeUpAsNote } from './asNote';
import { type Source, makeWriteUp, plainText } from './makeWriteUp';
import { SHIPPED_TEMPLATES } from './shippedTemplates';

const passage = (speaker: string | null, text: string, startMs: number): Passage => ({
  ...{ speaker, startMs, endMs: startMs + 9000, startsParagraph: true },
  words: text
    .split(' ')
    .map((word, i) => ({ text: word, startMs: startMs + i * 200, endMs: startMs + i * 200 + 180, confidence: 1 })),
});
const todo = (id: number, text: string, part: Partial<Source['todos'][number]> = {}) => ({
  ...{ id: `00000000-0000-4000-8000-00000000000${id}`, text, who: 'me', due: null, project: null, startMs: 1000 * id },
  ...{ isDone: false },
  ...part,
});

const TALK: Source = {
  passages: [
    passage('Tamsin', 'So, um, we have to talk about the trench along the quay. How wide is the trench to be?', 0),
    passage(
      'Bram',
      'I think that two metres are enough for the roots of twelve limes. I will check the depth on Friday.',
      10_000,
    ),
    passage('Ottoline', 'Then we dig the trench in April, before the harbour festival.', 20_000),
    passage('Tamsin', 'Agreed. Who pays for the structural soil?', 30_000),
    passage('Ottoline', 'I do not know, the planting fund perhaps. The soil costs eleven thousand.', 40_000),
    passage(
      'Bram',
      'The limes are delivered on the twelfth of May. A root barrier is a wall that keeps roots away from pipes.',
      50_000,
    ),
  ],
  slips: [
    { kind: 'aside', mark: null, startMs: 21_000, endMs: null, text: 'Ask the school too' },
    { kind: 'mark', mark: 'key-point', startMs: 41_000, endMs: null, text: '' },
  ],
  todos: [
    todo(1, 'Check the depth', { who: 'Bram', due: '2026-03-13', project: 'Quayside limes' }),
    todo(2, 'Order the barrier', { project: 'Quayside limes', isDone: true }),
    todo(3, 'Buy milk', { due: '2026-03-10T17:00' }),
    todo(4, 'Move the cable', { who: null }),
  ],
};
const template = (section: object, rest: object = {}): Template =>
  templateSchema.validateSync({ name: 'Test', sections: [section], ...rest });
const texts = (section: object, source = TALK, rest: object = {}) =>
  makeWriteUp(template(section, rest), source, null).flatMap((s) =>
    s.groups.flatMap((g) => g.lines.map((l) => l.text)),
  );

describe('a section', () => {
  it('of decisions: what the next one agrees to', () => {
    expect(texts({ content: 'decisions' })).toEqual(['We dig the trench in April, before the harbour festival.']);
  });

  it('of questions: those that nobody answered', () => {
    expect(texts({ content: 'questions' })).toEqual(['Who pays for the structural soil?']);
  });

  it('of to-dos: mine, others’, next by date', () => {
    expect(texts({ content: 'own-todos' })).toEqual(['Order the barrier', 'Buy milk']);
    expect(texts({ content: 'others-todos' })).toEqual(['Check the depth']);
    expect(texts({ content: 'next-steps' })).toEqual(['Buy milk', 'Check the depth']);
    const [byProject] = makeWriteUp(
      template({ content: 'all-todos', grouping: 'project', form: 'checks' }),
      TALK,
      null,
    );
    expect(byProject!.groups.map((g) => [g.name, g.lines.length])).toEqual([
      ['Quayside limes', 2],
      ['No project', 2],
    ]);
  });

  it('of dates and numbers, terms, asides and marks', () => {
    expect(texts({ content: 'dates-and-numbers' })).toContain('The soil costs eleven thousand.');
    expect(texts({ content: 'dates-and-numbers' })).toContain('The limes are delivered on the twelfth of May.');
    expect(texts({ content: 'terms' })).toContain('A root barrier is a wall that keeps roots away from pipes.');
    expect(texts({ content: 'asides' })).toEqual(['Ask the school too']);
    expect(texts({ content: 'marked' })).toEqual(['I do not know, the planting fund perhaps.']);
  });

  it('that holds nothing is left out, or says so', () => {
    const nothing: Source = { passages: [], slips: [], todos: [] };
    expect(makeWriteUp(template({ content: 'decisions' }), nothing, null)).toEqual([]);
    expect(makeWriteUp(template({ content: 'decisions', isOptional: false }), nothing, null)).toMatchObject([
      { groups: [] },
    ]);
  });
});

describe('the wording', () => {
  it('leaves fillers and openings out', () => {
    expect(texts({ content: 'text' })[0]).toBe('We have to talk about the trench along the quay.');
  });

  it('turns the first person, or says who said it', () => {
    const all = texts({ content: 'text' }, TALK, { wording: 'reported' });
    expect(all).toContain('Bram will check the depth on Friday.');
    expect(all).toContain('Ottoline does not know, the planting fund perhaps.');
  });
});

describe('a length that is asked for', () => {
  it.each([
    ['sentences', 1],
    ['points', 2],
    ['words', 12],
    ['characters', 60],
    ['words', 2],
    ['characters', 9],
  ] as const)('%s: at most %i', (unit, most) => {
    const made = texts({ content: 'key-points', unit, most });
    const size = {
      sentences: made.length,
      points: made.length,
      words: made.join(' ').split(/\s+/).length,
      characters: made.join(' ').length,
    };
    expect(made.length).toBeGreaterThan(0);
    expect(size[unit]).toBeLessThanOrEqual(most);
  });

  it('holds over the whole', () => {
    for (const mostCharacters of [40, 120, 300]) {
      const made = makeWriteUp({ ...SHIPPED_TEMPLATES.get('minutes')!, mostCharacters }, TALK, null);
      expect([...plainText(made)].length).toBeLessThanOrEqual(mostCharacters);
    }
  });

  it('gives marks more weight', () => {
    const [only] = texts({ content: 'summary', most: 1, unit: 'sentences' });
    const unmarked = texts({ content: 'summary', most: 1, unit: 'sentences' }, { ...TALK, slips: [] });
    const marked = { kind: 'mark', mark: 'key-point', startMs: 51_000, endMs: null, text: '' };
    expect(texts({ content: 'summary', most: 1, unit: 'sentences' }, { ...TALK, slips: [marked] })).toEqual([
      'The limes are delivered on the twelfth of May.',
    ]);
    expect([only, unmarked[0]]).toEqual([expect.any(String), expect.any(String)]);
  });
});

/** Words that turning the first person may add. */
const ADDED = new Set(['is', 'has', 'does', 'will', 'would', 'was', 's', 'tamsin', 'bram', 'ottoline'].map(stem));

it.each([...SHIPPED_TEMPLATES.entries()])('%s invents nothing and cites every line', (_, shipped) => {
  const made = makeWriteUp(shipped, TALK, null);
  const said = [
    ...sentencesOf(TALK.passages).map((s) => s.text),
    ...TALK.slips.map((s) => s.text),
    ...TALK.todos.map((t) => t.text),
  ];
  const known = new Set(said.flatMap(wordsOf).map(stem));
  for (const line of made.flatMap((s) => s.groups.flatMap((g) => g.lines))) {
    const invented = wordsOf(line.text)
      .map(stem)
      .filter((w) => !known.has(w) && !ADDED.has(w));
    expect(invented).toEqual([]);
    expect(line.startMs).not.toBeNull();
  }
});

describe('bad input', () => {
  const of = (text: string): Source => ({ passages: text ? [passage(null, text, 0)] : [], slips: [], todos: [] });
  it.each([
    ['nothing', ''],
    ['one word', 'Yes.'],
    ['numbers only', '7 11 40 12 3'],
    ['no verbs', 'Red boats, green boats.'],
    ['two languages', 'Der Baum steht am Hafen. The tree is old.'],
    ['marks only', '... ?! ,'],
  ])('%s', (_, text) => {
    for (const shipped of SHIPPED_TEMPLATES.values()) {
      expect(typeof writeUpAsMarkdown('x', makeWriteUp(shipped, of(text), null))).toBe('string');
    }
  });

  it('a template with an unknown section, without a section, or with a field too many is refused in a sentence', () => {
    const check = (value: unknown) => () => templateSchema.validateSync(value, { stripUnknown: false });
    expect(check({ name: 'x', sections: [{ content: 'horoscope' }] })).toThrow('“horoscope” is not a kind of content.');
    expect(check({ name: 'x', sections: [] })).toThrow('Add at least one section.');
    expect(check({ name: 'x', sections: [{ content: 'summary' }], include: 'x.yaml' })).toThrow(
      'The template contains a field that Immeld does not know.',
    );
  });
});

it('goes into a note with its moments and its to-dos', () => {
  const note = writeUpAsNote(makeWriteUp(SHIPPED_TEMPLATES.get('minutes')!, TALK, null), 'rec');
  const text = JSON.stringify(note);
  expect(text).toContain('"taskItem","attrs":{"checked":true,"todoId":"00000000-0000-4000-8000-000000000002"}');
  expect(text).toContain('{"type":"mention","attrs":{"kind":"recording","id":"rec","label":"0:20","startMs":20000}}');
});

describe('what was understood', () => {
  const model = unpackModel(
    new Uint8Array(fs.readFileSync(path.join(__dirname, '..', '..', 'data', 'understanding', 'weights.bin'))),
  );
  const linesOf = (section: object, passages: readonly Passage[]) =>
    makeWriteUp(template(section), { passages, slips: [], todos: [] }, model).flatMap((s) =>
      s.groups.map((g) => g.lines),
    );

  it('goes into minutes: a short decision stands with what was asked', () => {
    const [lines] = linesOf({ content: 'decisions' }, [
      passage('Tamsin', 'Do we take the wide border or the narrow one for the quay?', 0),
      passage('Bram', 'Okay, then the narrow one.', 9000),
      passage('Tamsin', 'Agreed.', 18_000),
    ]);
    expect(lines!.map((l) => l.text).join(' ')).toMatch(/narrow one.*\(asked: Do we take the wide border/i);
    expect(lines![0]).toMatchObject({ startMs: 9000 });
  });

  it('makes a letter of one that was dictated: each block leads to where it was said', () => {
    const groups = linesOf({ content: 'letter', form: 'text' }, [
      passage(null, 'Letter to Ms Sund. Dear Ms Sund, thank you for the plans of the north bank.', 0),
      passage(null, 'We meet on Friday, no, scratch that, we meet on Thursday at the quay. New paragraph.', 20_000),
      passage(null, 'The soil arrives a day before. Kind regards, Tamsin Vale.', 40_000),
    ]);
    const blocks = groups.map((lines) => lines.map((l) => l.text).join(' '));
    expect(blocks[0]).toBe('Dear Ms Sund,');
    expect(blocks.at(-2)).toBe('Kind regards,');
    expect(blocks.at(-1)).toBe('Tamsin Vale');
    expect(blocks.join(' ')).not.toMatch(/scratch|new paragraph|letter to/i);
    expect(groups.flat().map((l) => l.startMs! >= 40_000)).toEqual([false, false, true, true, true]);
  });

  it('leaves other talk as it was where a letter is wanted', () => {
    const talk = [passage(null, 'We plant the limes in April. The soil is there.', 0)];
    expect(linesOf({ content: 'letter', form: 'text' }, talk)).toEqual(
      linesOf({ content: 'text', form: 'text' }, talk),
    );
  });
});
