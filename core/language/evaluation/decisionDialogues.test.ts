import { decisionsIn, openQuestionsIn } from '../../writeup/findings';
import { DECISIONS_TEST_SET, DECISIONS_DEV_SET } from './decisionDialogues';

describe('decisions and open questions in dialogues', () => {
  const all = [...DECISIONS_DEV_SET, ...DECISIONS_TEST_SET];

  it('are marked in 24 of them, each mark on a sentence of its own', () => {
    expect(all).toHaveLength(24);
    const marked = all.flatMap((d) => d.sentences.filter((s) => s.isDecision || s.isOpen));
    expect(marked).toHaveLength(37);
    expect(all.flatMap((d) => d.sentences).some((s) => s.text.includes('['))).toBe(false);
  });

  it.each([
    ['decisions', decisionsIn, 'isDecision'],
    ['open questions', openQuestionsIn, 'isOpen'],
  ] as const)('%s are found with an F1 of at least 0.85', (_, find, mark) => {
    const found = all.flatMap((d) => find(d.sentences) as typeof d.sentences);
    const wanted = all.flatMap((d) => d.sentences.filter((s) => s[mark]));
    const right = found.filter((s) => s[mark]).length;
    expect((2 * right) / (found.length + wanted.length)).toBeGreaterThanOrEqual(0.85);
  });
});
