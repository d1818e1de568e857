import type { SlipKind } from '@immeld/core/contract/slips';

/** What the kinds of slips are called on screen. */
export const SLIP_NAMES: Record<SlipKind, string> = {
  mark: 'Mark',
  note: 'Slip',
  heading: 'New part',
  picture: 'Picture',
  aside: 'Aside',
  consent: 'Consent',
  seam: 'Break',
  gap: 'Gap',
  link: 'Link',
  file: 'File',
  slide: 'Slide',
};
