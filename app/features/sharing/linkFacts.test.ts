import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { linkFacts } from './linkFacts';

const LINK: ShareLink = {
  ...{ id: 'a', item: { kind: 'recording', id: 'b' }, title: 'Walk', path: '/s/x', withSound: false, withSlips: false },
  ...{
    withWriteUps: false,
    withProposals: false,
    isListed: false,
    hasPassword: false,
    lastDay: null,
    mostOpenings: null,
    openings: 0,
  },
  ...{ lastOpenedAt: null, madeAt: '', isStopped: false },
};

it('says what a link shows, how it is guarded and how often it was opened', () => {
  expect(linkFacts(LINK, null)).toBe('text · not opened yet');
  const guarded = { ...LINK, withSound: true, hasPassword: true, lastDay: '2026-03-09', mostOpenings: 5, openings: 2 };
  expect(linkFacts(guarded, 'today 9:12')).toBe(
    'text, audio · password protected · until 9 Mar 2026 · opened 2 of 5, last today 9:12',
  );
  const note: ShareLink = { ...LINK, item: { kind: 'note', id: 'b' }, isStopped: true };
  expect(linkFacts(note, null)).toBe('turned off · note · not opened yet');
});
