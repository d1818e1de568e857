import { passagesFrom } from '../transcript/passages';
import { shortSummary } from '../writeup/shortSummary';
import fs from 'node:fs';
import path from 'node:path';
import { unpackModel } from '../understanding/model';
import { type FilingContext, proposalsFor } from './proposals';

const MEMO =
  'I need to send the root survey to the engineer by Friday. The limes along the quay were planted in spring and stand well. ' +
  'The trench along the quay brings rain to the roots of the limes. It was a nice morning.';
const passages = passagesFrom(
  MEMO.split(' ').map((text, i) => ({ startMs: i * 400, endMs: i * 400 + 350, text, confidence: 0.9 })),
);
const model = unpackModel(
  new Uint8Array(fs.readFileSync(path.join(__dirname, '..', '..', 'data', 'understanding', 'weights.bin'))),
);
const CONTEXT: FilingContext = {
  startedAt: '2026-03-09T07:40:12',
  ...{ source: 'speak', people: [], appointment: null, place: null, knownPeople: [{ name: 'Bram Vantongeren' }] },
  filed: [],
  folders: [{ id: 'quay', name: 'Quayside limes' }],
  tags: ['roots', 'dentist'],
  projects: [],
};

describe('what stands in pencil beside a new recording', () => {
  const proposals = proposalsFor(passages, CONTEXT, model);

  it('is a title, a folder and tags', () => {
    expect(proposals.title).toMatch(/lime|quay|root|trench/i);
    expect(proposals.folderId).toBe('quay');
    expect(proposals.tags).toEqual(['roots']);
  });

  it('is another title on request, never cut inside a word', () => {
    expect(proposals.otherTitles.length).toBeGreaterThan(1);
    const words = new Set(MEMO.toLowerCase().match(/\p{L}+/gu));
    for (const title of [proposals.title!, ...proposals.otherTitles]) {
      for (const word of title.toLowerCase().match(/\p{L}+/gu)!) expect(words).toContain(word);
    }
  });

  it('is the to-do with its date and its second', () => {
    expect(proposals.todos).toMatchObject([
      { text: 'Send the root survey to the engineer', due: '2026-03-13', startMs: 0 },
    ]);
  });

  it('is a summary of sentences that were said, each with its moment', () => {
    expect(proposals.summary.length).toBeGreaterThan(0);
    for (const { text, startMs, passage } of proposals.summary) {
      expect(MEMO).toContain(text);
      expect(startMs).not.toBeNull();
      expect(passages[passage!]).toBeDefined();
    }
  });

  it('is nothing where nothing was said', () => {
    expect(proposalsFor([], CONTEXT, model)).toEqual({
      ...{ kind: 'memo', title: null, otherTitles: [], folderId: null, tags: [], project: null, people: [] },
      ...{ todos: [], summary: [] },
    });
  });
});

describe('the short summary', () => {
  it('is at most as long as asked for, and never longer than half of what was said', () => {
    for (const most of [1, 2, 8]) expect(shortSummary(passages, most).length).toBeLessThanOrEqual(Math.min(most, 2));
  });
});
