import { csvParse } from 'd3-dsv';
import { type ExportChoices, PLAIN_CHOICES, USUAL_CHOICES } from '../contract/exports';
import { USUAL_MARK_KINDS } from '../contract/markKinds';
import type { Todo } from '../contract/todos';
import { fileNameBy, uniqueNames } from './fileNames';
import { noteAsDocument } from './noteAsDocument';
import { type RecordingToExport, recordingDocument } from './recordingDocument';
import { documentHtml } from './documentHtml';
import { documentMarkdown } from './documentMarkdown';
import { documentText } from './documentText';
import { todosCsv } from './todosCsv';
import { transcriptText } from './transcriptText';

const ID = '7b0f6d0e-6b3c-4c49-9d5e-0d2f6a2d8f11';
let at = 0;
const passage = (text: string, speaker: string | null, startsParagraph = true) => {
  const words = text.split(' ').map((word) => ({ startMs: at, endMs: (at += 500), text: word, confidence: 0.9 }));
  return { id: 1, revision: 0, startMs: words[0]!.startMs, endMs: at, speaker, startsParagraph, words };
};
const slip = (kind: string, startMs: number, more: object) => ({
  ...{ id: ID, kind, mark: null, startMs, endMs: null, text: '', hasPicture: false, address: null, file: null },
  ...{ assignee: null, comments: [], ...more },
});
const todo = (more: object) =>
  ({
    ...{ id: ID, text: 'Order stakes', who: 'me', due: null, project: null, priority: null, isDone: false, notes: '' },
    ...{ recordingTitle: 'Walk', quote: 'order stakes', state: 'ink', startMs: 0, ...more },
  }) as unknown as Todo;

const RECORDING = {
  ...{ id: ID, title: 'Walk & talk', fileName: 'walk.m4a', startedAt: '2026-03-09T07:40:00', durationMs: 65_000 },
  ...{ people: ['Bram Vantongeren'], tags: ['limes'], language: 'en', model: 'm', suggestion: { title: null } },
  passages: [
    passage('Um we plant twenty five limes.', 'Tamsin'),
    passage('The roots need sand.', 'Bram', true),
    passage('And air.', 'Bram', false),
  ],
  slips: [
    slip('mark', 3500, { mark: 'key-point', endMs: 4900, text: 'Sand!', comments: [{ text: 'Ask the quarry' }] }),
    slip('consent', 0, { text: 'Bram agreed aloud' }),
    slip('heading', 3000, { text: 'The roots' }),
  ],
  ...{ todos: [todo({}), todo({ text: 'Send plan', who: 'Jun', due: '2026-03-12', isDone: true })], parts: [] },
  writeUps: [{ state: 'ink', editedText: null, sentences: [{ text: 'Limes are planted.' }] }],
  sheets: [],
} as unknown as RecordingToExport;

const rules = (choices: Partial<ExportChoices>) => ({
  choices: { ...PLAIN_CHOICES, ...choices },
  ...{ reading: { figures: ['numbers'] as never, hidesFillers: choices.fillers === false } },
  ...{ kinds: USUAL_MARK_KINDS, soundName: 'walk.m4a' },
});
const text = (choices: Partial<ExportChoices>) => documentText(recordingDocument(RECORDING, rules(choices)));

describe('plain text', () => {
  it('is only the words as long as nothing else is selected', () => {
    expect(text({})).toBe('Tamsin: Um we plant 25 limes.\n\nThe roots\n\nBram: The roots need sand. And air.\n');
  });

  it.each<[string, Partial<ExportChoices>, string, string]>([
    ['times', { times: true }, '0:03 Bram: The roots', ''],
    ['no speakers', { speakers: false }, 'The roots need sand. And air.', 'Bram:'],
    ['passages', { shape: 'passages' }, 'Bram: And air.', ''],
    ['no fillers', { fillers: false }, 'Tamsin: We plant 25 limes.', 'Um'],
    ['slips below their words', { slips: 'margin' }, 'Key point at 0:03: Sand!', 'Ask the quarry'],
    ['comments', { slips: 'margin', comments: true }, '- Ask the quarry', ''],
    ['footnotes', { slips: 'footnotes' }, 'And air. [1]', ''],
    ['the foot', { slips: 'footnotes' }, '[1] Key point at 0:03: Sand!', ''],
    ['a header', { header: true }, 'Walk & talk\n9 Mar 2026, 7:40 · 1:05 · Bram Vantongeren · limes', ''],
    ['consent', { consent: true }, 'Consent: Bram agreed aloud, at 0:00', ''],
    ['write-ups', { writeUps: true }, 'Summary\n\nLimes are planted.', ''],
    ['to-dos', { todos: true }, '[ ] Order stakes\n[x] Send plan (Jun, by 12 Mar 2026)', ''],
    ['only what is marked', { marksOnly: true }, 'roots need sand.', 'plant'],
    ['audio', { soundLink: true }, 'Audio: walk.m4a', ''],
    ['no words', { words: false, todos: true }, 'Order stakes', 'limes'],
  ])('has %s when it is selected', (_, choices, inside, outside) => {
    expect(text(choices)).toContain(inside);
    if (outside) expect(text(choices)).not.toContain(outside);
  });
});

describe('what nobody has accepted', () => {
  const proposed = {
    ...RECORDING,
    todos: [todo({}), todo({ text: 'Keep the kids away', state: 'pencil' }), todo({ text: 'Gone', state: 'dropped' })],
    writeUps: [{ state: 'pencil', editedText: null, sentences: [{ text: 'Limes may be planted.' }] }],
    sheets: [
      {
        name: 'Minutes',
        sections: [
          {
            ...{ heading: 'Decisions', form: 'numbered', indent: 0, hasTimes: false, isKept: false },
            groups: [{ name: null, lines: [{ text: 'Plant oaks', startMs: 3000, todoId: null, isDone: false }] }],
          },
        ],
      },
    ],
  } as unknown as RecordingToExport;
  const taken = (choices: Partial<ExportChoices>) => documentText(recordingDocument(proposed, rules(choices)));

  it('does not leave the house', () => {
    const said = taken({ writeUps: true, todos: true });
    expect(said).toContain('[ ] Order stakes');
    expect(said).not.toMatch(/kids|may be planted|Minutes|oaks|Gone/);
  });

  it('goes along where it is wanted, and says that it is proposed', () => {
    const said = taken({ writeUps: true, todos: true, proposals: true, times: true });
    expect(said).toMatch(/To-dos\n\n\[ \] Order stakes\n\nTo-dos \(suggested\)\n\n\[ \] Keep the kids away/);
    expect(said).toMatch(/Summary \(suggested\)\n\nLimes may be planted\./);
    expect(said).toMatch(/Minutes \(suggested\)[\s\S]*1\. Plant oaks \(0:03\)/);
    expect(said).not.toContain('Gone');
  });

  it('a person is named for others, not “me”', () => {
    const sheet = recordingDocument(proposed, { ...rules({ todos: true }), owner: 'Tamsin' });
    expect(documentText(sheet)).toContain('[ ] Order stakes (Tamsin)');
  });
});

describe('HTML and Markdown', () => {
  const choices = { ...USUAL_CHOICES.html, speakers: true };
  it('mark words in the colour of their mark, and let nothing in', () => {
    const evil = { ...RECORDING, title: '<script>alert(1)</script>' } as RecordingToExport;
    const html = documentHtml(recordingDocument(evil, rules(choices)));
    expect(html).not.toContain('<script>');
    expect(html).toMatch(/<mark class="rowan">roots need sand\.<\/mark>/);
    expect(html).toContain('<input type="checkbox" disabled checked aria-label="done"> Send plan');
  });

  it('keep signs of Markdown as they were said', () => {
    const said = { ...RECORDING, passages: [passage('Use *two* #tags and [this] 1. not', null)], slips: [] };
    const markdown = documentMarkdown(recordingDocument(said as unknown as RecordingToExport, rules({})));
    expect(markdown).toContain('Use \\*two\\* \\#tags and \\[this\\] 1. not');
    const list = { ...RECORDING, passages: [passage('1. is not a list', null)], slips: [] };
    expect(documentMarkdown(recordingDocument(list as unknown as RecordingToExport, rules({})))).toBe(
      '1\\. is not a list\n',
    );
  });
});

describe('a note', () => {
  const node = (type: string, content: object[], attrs = {}) => ({ type, attrs, content });
  const words = (value: string, marks: object[] = []) => ({ type: 'text', text: value, marks });
  const body = {
    ...node('doc', [
      node('heading', [words('Limes')], { level: 2 }),
      node('taskList', [
        node('taskItem', [node('paragraph', [words('Order '), words('ties', [{ type: 'bold' }])])], { checked: true }),
      ]),
      node('table', [
        node('tableRow', [node('tableHeader', [node('paragraph', [words('Tree')])]), node('tableHeader', [])]),
        node('tableRow', [node('tableCell', [node('paragraph', [words('Lime')])]), node('tableCell', [])]),
      ]),
      node('paragraph', [words('See ', []), { type: 'mention', attrs: { kind: 'recording', id: ID, label: '0:04' } }]),
      node('image', [], { src: `/api/note-pictures/${ID}`, alt: 'Plan' }),
      node('paragraph', [words('bad', [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }])]),
    ]),
    type: 'doc' as const,
  };
  const sheet = noteAsDocument(
    { title: 'Notes', body, facts: ['2026-03-09'] },
    { hasHeader: true, kinds: USUAL_MARK_KINDS },
  );

  it('keeps headings, check boxes, tables, links and pictures', () => {
    expect(documentMarkdown(sheet, new Map([[ID, 'pictures/1.png']]))).toBe(
      '# Notes\n\n2026-03-09\n\n## Limes\n\n- [x] Order **ties**\n\n| Tree |  |\n|---|---|\n| Lime |  |\n\nSee 0:04\n\n![Plan](<pictures/1.png>)\n\nbad\n',
    );
    expect(documentHtml(sheet)).not.toContain('javascript:');
  });
});

describe('a table of to-dos', () => {
  it('is read by another parser of RFC 4180, whatever stands in it', () => {
    const text = 'Say "no", or:\nask';
    const rows = csvParse(todosCsv([todo({ text, who: null, notes: 'a,b' }), todo({ text: '=HYPERLINK("x")' })]));
    expect(rows).toHaveLength(2);
    expect(rows[0]).toMatchObject({ text, who: '', notes: 'a,b', done: 'no' });
    // A spreadsheet shows it and does not run it.
    expect(rows[1]!['text']).toBe('\'=HYPERLINK("x")');
  });
});

describe('subtitles and data', () => {
  it('leave out what is not selected', () => {
    expect(transcriptText(RECORDING, 'vtt', rules({}))).toContain('<v Bram>');
    expect(transcriptText(RECORDING, 'vtt', rules({ speakers: false }))).not.toContain('<v');
    expect(transcriptText(RECORDING, 'vtt', rules({ slips: 'margin' }))).toContain('NOTE Key point at 0:03: Sand!');
    expect(transcriptText(RECORDING, 'tsv', rules({ marksOnly: true }))).toBe(
      'start\tend\ttext\n3500\t5000\troots need sand.\n',
    );
  });
});

describe('names of files', () => {
  const parts = {
    title: 'A/B: plan?',
    date: '2026-03-09',
    time: '07.40',
    folder: 'Quay',
    project: '',
    number: '3',
    file: 'x',
  };
  it.each([
    ['{date} {title}', '2026-03-09 A B plan'],
    ['{folder}-{number}', 'Quay-3'],
    ['{project}', 'recording'],
    ['../../etc/{file}', 'etc x'],
    ['CON', 'CON_'],
  ])('%s', (pattern, name) => {
    expect(fileNameBy(pattern, parts).replace(/^ +/, '')).toBe(name);
  });

  it('are short enough for a disk in any script, and each there once', () => {
    expect(new TextEncoder().encode(fileNameBy('{title}', { ...parts, title: '木'.repeat(300) })).length).toBeLessThan(
      181,
    );
    const free = uniqueNames();
    expect([free('a'), free('A'), free('a')]).toEqual(['a', 'A 2', 'a 3']);
  });
});
