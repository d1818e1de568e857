import { suggestFiling } from './suggestions';

const FOLDERS = [
  { id: 'quay', name: 'Quayside limes', otherNames: ['the quay'] },
  { id: 'soil', name: 'Soil course' },
];

describe('where a recording belongs', () => {
  it('follows how its person filed before', () => {
    const filed = [
      { text: 'clay and loam drain slowly, pores and suction', folderId: 'soil', tags: ['lecture'] },
      { text: 'the crane, the lock and the pits by the harbour', folderId: 'quay', tags: ['walk'] },
    ];
    const suggestion = suggestFiling('suction in the pores of a loam', filed, FOLDERS, ['lecture', 'walk']);
    expect(suggestion.folder?.id).toBe('soil');
    expect(suggestion.tags.map((t) => t.name)).toContain('lecture');
  });

  it('begins with the names of folders and tags', () => {
    expect(suggestFiling('I walked the quay again', [], FOLDERS, []).folder?.id).toBe('quay');
    expect(suggestFiling('the dentist called', [], FOLDERS, ['dentist']).tags.map((t) => t.name)).toEqual(['dentist']);
  });

  it('proposes nothing where nothing fits, and function words do not count', () => {
    expect(suggestFiling('we had soup', [], FOLDERS, ['dentist'])).toEqual({ folder: null, tags: [] });
    expect(suggestFiling('the the the the', [], FOLDERS, [])).toEqual({ folder: null, tags: [] });
  });
});
