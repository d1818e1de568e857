import type { ShareLink } from '@immeld/core/contract/shareLinks';

/** In one line: what a link shows, how it is guarded, how often it was opened. */
export function linkFacts(link: ShareLink, opened: string | null): string {
  const shows = [
    link.item.kind === 'note' ? 'a note' : 'the words',
    link.withSound ? 'the sound' : null,
    link.withSlips ? 'the margin' : null,
    link.withWriteUps ? (link.withProposals ? 'write-ups and proposals' : 'write-ups') : null,
  ].filter(Boolean);
  const most = link.mostOpenings === null ? '' : ` of ${link.mostOpenings}`;
  return [
    link.isStopped ? 'stopped' : null,
    shows.join(', '),
    link.hasPassword ? 'with a password' : null,
    link.lastDay ? `until ${link.lastDay}` : null,
    link.isListed ? 'search engines may list it' : null,
    link.openings === 0 ? `not opened yet${most}` : `opened ${link.openings}${most}, last ${opened ?? ''}`,
  ]
    .filter(Boolean)
    .join(' · ');
}
