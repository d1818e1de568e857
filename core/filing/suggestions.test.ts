import { withLongOnes, yearOfFilings } from './evaluation/yearOfFilings';
import { filingMetrics } from './evaluation/filingMetrics';
import { type FiledExample, suggestFiling } from './suggestions';

const SHELF = {
  folders: [
    { id: 'quay', name: 'Quayside limes', otherNames: ['the quay'] },
    { id: 'soil', name: 'Soil course' },
  ],
  tags: ['lecture', 'walk', 'dentist'],
  projects: [{ name: 'Quayside limes', otherNames: ['the quay'] }],
};
const memo = (text: string, more: Partial<FiledExample> = {}): FiledExample => ({
  ...{ startedAt: '2026-03-10T12:00:00', source: 'speak', people: [], appointment: null, place: null },
  ...{ folderId: null, tags: [], project: null },
  text,
  ...more,
});

describe('where a recording belongs', () => {
  const filed = [
    memo('clay and loam drain slowly, pores and suction', { folderId: 'soil', tags: ['lecture'] }),
    memo('the crane, the lock and the pits by the harbour', {
      folderId: 'quay',
      tags: ['walk'],
      project: 'Quayside limes',
    }),
  ];

  it('follows how its person filed before', () => {
    const suggestion = suggestFiling(memo('suction in the pores of a loam'), filed, SHELF);
    expect(suggestion.folder?.id).toBe('soil');
    expect(suggestion.tags.map((t) => t.name)).toContain('lecture');
    expect(suggestFiling(memo('pits by the crane at the lock'), filed, SHELF).project).toBe('Quayside limes');
  });

  it('follows whom it was made with and when, where the words tell nothing', () => {
    const evenings = Array.from({ length: 6 }, (_, i) =>
      memo(`thing number ${i}`, { folderId: 'soil', startedAt: `2026-03-1${i}T19:10:00`, people: ['Idris Malmquist'] }),
    );
    const mornings = Array.from({ length: 6 }, (_, i) =>
      memo(`object number ${i}`, {
        folderId: 'quay',
        startedAt: `2026-03-1${i}T07:10:00`,
        people: ['Bram Vantongeren'],
      }),
    );
    const blank = memo('and so on', { startedAt: '2026-03-20T19:40:00', people: ['Idris Malmquist'] });
    expect(suggestFiling(blank, [...evenings, ...mornings], SHELF).folder?.id).toBe('soil');
  });

  it('begins with the names of folders, projects and tags', () => {
    expect(suggestFiling(memo('I walked the quay again'), [], SHELF)).toMatchObject({
      ...{ folder: { id: 'quay' }, project: 'Quayside limes' },
    });
    expect(suggestFiling(memo('the dentist called'), [], SHELF).tags.map((t) => t.name)).toEqual(['dentist']);
  });

  it('proposes nothing where nothing fits, and function words do not count', () => {
    const nothing = { folder: null, tags: [], project: null };
    expect(suggestFiling(memo('we had soup'), [], SHELF)).toEqual(nothing);
    expect(suggestFiling(memo('the the the the'), [], SHELF)).toEqual(nothing);
    // Silence, made when and as the others were.
    expect(suggestFiling(memo(''), filed, SHELF)).toEqual(nothing);
  });

  it('gives no tag for the hour and the source alone while it was given a few times', () => {
    const call = memo('hello, the dentist wants to see you', { tags: ['dentist'], source: 'import' });
    const other = memo('the crane by the lock', { tags: ['walk'], startedAt: '2026-03-12T18:00:00' });
    const twice = [call, { ...call, text: 'yes, the tooth is fine' }, other, other, other];
    expect(suggestFiling(memo('six of them are children', { source: 'import' }), twice, SHELF).tags).toEqual([]);
    expect(suggestFiling(memo('the tooth hurts', { source: 'import' }), twice, SHELF).tags[0]?.name).toBe('dentist');
  });

  it('never proposes a folder that is not there any more', () => {
    const gone = [memo('soup and bread', { folderId: 'removed' })];
    expect(suggestFiling(memo('soup and bread'), gone, SHELF).folder?.id).not.toBe('removed');
  });
});

it('is right for a year of made-up filings far more often than the folder that is used most', () => {
  const year = withLongOnes(yearOfFilings(120, 7), 7);
  const filed = year.map((m) => ({ ...m, folderId: m.folder, project: null, place: null }));
  const { folderFirst, mostFrequentFirst, tagRecall } = filingMetrics(filed, 30);
  expect(folderFirst).toBeGreaterThan(0.85);
  expect(folderFirst).toBeGreaterThan(2 * mostFrequentFirst);
  expect(tagRecall).toBeGreaterThan(0.8);
});
