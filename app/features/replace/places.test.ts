import type { ReplacementPreview } from '@immeld/core/contract/replacements';
import { chosenPassages, rowsOf } from './places';

const hit = (passageId: number, index: number) => ({
  ...{ passageId, index, revision: 2, startMs: 0, before: '', found: 'key', instead: 'quay', after: '' },
});
const preview: ReplacementPreview = {
  recordings: [
    { recordingId: 'a', title: 'Walk', startedAt: '2026-03-09T08:00:00', hits: [hit(1, 0), hit(1, 1), hit(2, 0)] },
    { recordingId: 'b', title: 'Call', startedAt: '2026-03-10T08:00:00', hits: [hit(7, 0)] },
  ],
  isCut: false,
};

it('lists each recording before its places', () => {
  expect(rowsOf(preview).map((r) => r.key)).toEqual(['a', '1/0', '1/1', '2/0', 'b', '7/0']);
  expect(rowsOf(undefined)).toEqual([]);
});

it('takes the chosen places together by passage', () => {
  expect(chosenPassages(preview, new Set(['1/0', '7/0']))).toEqual([
    { passageId: 1, revision: 2, indexes: [1] },
    { passageId: 2, revision: 2, indexes: [0] },
  ]);
});
