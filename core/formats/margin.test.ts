import { slipPlace } from './slipPlace';
import { type MarginLine, marginMarkdown } from './margin';

const line = (part: Partial<MarginLine>): MarginLine => ({
  ...{ startMs: 0, name: 'Slip', text: '', words: '', address: null, assignee: null, comments: [], isDone: null },
  ...part,
});

it('writes the margin as a list with times, words and comments', () => {
  const text = marginMarkdown('Quay walk', [
    line({
      startMs: 65_000,
      name: 'Key point',
      words: 'The pit is full of rubble.',
      comments: ['Ask Bram', 'He knows'],
    }),
    line({ startMs: 70_000, name: 'To-do', text: 'Call the engineer', isDone: false, assignee: 'Jun' }),
    line({ startMs: 80_000, name: 'Link', address: 'https://harrowmere.example/plan' }),
    line({ startMs: 81_000, name: 'To-do', text: 'Measure', isDone: true }),
  ]);
  expect(text).toBe(
    [
      '# Quay walk',
      '',
      '- 1:05 **Key point**',
      '  > The pit is full of rubble.',
      '',
      '  - Ask Bram',
      '  - He knows',
      '- [ ] 1:10 **To-do**: Call the engineer (for Jun)',
      '- 1:20 **Link**: <https://harrowmere.example/plan>',
      '- [x] 1:21 **To-do**: Measure',
      '',
    ].join('\n'),
  );
});

it('lets nobody’s words become marks of the format', () => {
  expect(marginMarkdown('a # *b*', [line({ text: '<b>[x](y)\nz' })])).toBe(
    '# a \\# \\*b\\*\n\n- 0:00 **Slip**: \\<b\\>\\[x\\](y) z\n',
  );
});

it('what belongs to the whole recording has no time', () => {
  expect(marginMarkdown('Walk', [line({ startMs: null, name: 'File', text: 'agenda.txt' })])).toContain(
    '- **File**: agenda.txt',
  );
  expect([slipPlace({ startMs: 0, isWhole: true }), slipPlace({ startMs: 14_000 })]).toEqual([
    ...['for the whole recording', 'at 0:14'],
  ]);
});
