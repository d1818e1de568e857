import { passagesFrom } from '../transcript/passages';
import { fullName, peopleIn } from './people';

const KNOWN = [
  { name: 'Bram Vantongeren', otherNames: ['the arborist'] },
  { name: 'Ottoline Reyes', otherNames: ['the engineer'] },
  { name: 'Idris Malmquist', otherNames: ['Professor Malmquist'] },
];
const said = (text: string, speaker: string | null = null) =>
  passagesFrom(
    text.split(' ').map((word, i) => ({ startMs: i * 300, endMs: i * 300 + 250, text: word, confidence: 1 })),
  ).map((p) => ({ ...p, speaker }));

describe('who is in a recording', () => {
  it.each([
    ['Ask Bram about the roots', ['Bram Vantongeren']],
    ["Look at Ottoline's drawing", ['Ottoline Reyes']],
    ['Professor Malmquist spoke about salt', ['Idris Malmquist']],
    ['the engineer was not there', []],
    ['the bramble by the lock', []],
  ])('%s', (text, people) => expect(peopleIn(said(text), [], KNOWN)).toEqual(people));

  it('is who speaks and who came, each once and by the full name', () => {
    expect(peopleIn(said('good morning', 'Bram'), ['Ottoline', 'bram'], KNOWN)).toEqual([
      'Bram Vantongeren',
      'Ottoline Reyes',
    ]);
    expect(peopleIn(said('good morning', 'Speaker 2'), ['Somebody New'], KNOWN)).toEqual(['Somebody New']);
  });

  it('does not guess between two of the same first name', () => {
    expect(fullName('Bram', [...KNOWN, { name: 'Bram Other' }])).toBe('Bram');
  });
});
