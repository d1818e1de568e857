import { dayInWords } from '@immeld/core/formats/times';
import type { ShareLink } from '@immeld/core/contract/shareLinks';

/** In one line: what a link shows, how it is guarded, how often it was opened. */
export function linkFacts(link: ShareLink, opened: string | null): string {
  const shows = [
    link.item.kind === 'note' ? 'note' : 'text',
    link.withSound ? 'audio' : null,
    link.withSlips ? 'margin' : null,
    link.withWriteUps ? (link.withProposals ? 'write-ups and suggestions' : 'write-ups') : null,
  ].filter(Boolean);
  const most = link.mostOpenings === null ? '' : ` of ${link.mostOpenings}`;
  return [
    link.isStopped ? 'turned off' : null,
    shows.join(', '),
    link.hasPassword ? 'password protected' : null,
    link.lastDay ? `until ${dayInWords(link.lastDay)}` : null,
    link.isListed ? 'visible to search engines' : null,
    link.openings === 0 ? `not opened yet${most}` : `opened ${link.openings}${most}, last ${opened ?? ''}`,
  ]
    .filter(Boolean)
    .join(' · ');
}
