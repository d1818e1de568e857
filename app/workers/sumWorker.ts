/** Works out what stands in a note, in a thread of its own: a sum without end keeps nobody from typing. */
import { noteSums } from '@immeld/core/compute/noteSums';
import { parseISO } from 'date-fns';
import type { FromSumWorker, ToSumWorker } from './sumMessages';

self.addEventListener('message', ({ data }: MessageEvent<ToSumWorker>) => {
  const { number, lines, day, currencies } = data;
  const answers = noteSums(lines, { today: parseISO(day), currencies });
  self.postMessage({ number, answers } satisfies FromSumWorker);
});
