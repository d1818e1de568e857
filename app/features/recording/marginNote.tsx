import type { Slip } from '@immeld/core/contract/slips';
import { SlideNote } from './slideNote';
import { SlipNote } from './slipNote';
import type { SoundPlayer } from './soundPlayer';

/** Whatever stands in the margin but a to-do: a slide is small there, as it is seen above the words. */
export const MarginNote = ({ slip, player }: { slip: Slip; player: SoundPlayer }) =>
  slip.kind === 'slide' ? <SlideNote slip={slip} player={player} /> : <SlipNote slip={slip} player={player} />;
