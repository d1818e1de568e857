import { templateSchema } from '../../contract/templates';
import { sentencesOfText } from '../../language/sentences';
import { SHIPPED_TEMPLATES } from '../shippedTemplates';
import { sectionsOfAnswer } from './answer';
import { MAX_WORDS_SENT, promptFor, sentencesToSend } from './prompt';

const said = sentencesOfText(
  'We take two metres. The soil costs four hundred. Who pays for it? Bram digs on Friday.',
).map((s, i) => ({ ...s, startMs: i * 1000, endMs: i * 1000 + 900, speaker: 'Bram' }));
const minutes = SHIPPED_TEMPLATES.get('minutes')!;
const linesOf = (answer: string, template = minutes) =>
  sectionsOfAnswer(answer, template, said).flatMap((s) => s.groups.flatMap((g) => g.lines));

describe('what a language model is asked', () => {
  it('has every sentence with its number, and every section with its form and length', () => {
    const [system, user] = promptFor(minutes, said);
    expect(system!.content).toContain('[12] or [3, 7]');
    expect(system!.content).toContain('third person');
    expect(user!.content).toContain('[2] (0:01, Bram) The soil costs four hundred.');
    for (const { heading } of minutes.sections) expect(user!.content).toContain(`## ${heading}`);
    expect(user!.content).toContain('at most 2 sentences');
  });

  it('of a very long recording holds the sentences that stand for it, in their order', () => {
    const long = sentencesOfText(
      Array.from(
        { length: 2000 },
        (_, i) => `The ${['lime', 'wall', 'pit', 'stake', 'lock'][i % 5]} number ${i} stands beside path ${i * 7}.`,
      ).join(' '),
    );
    const sent = sentencesToSend(long);
    const words = sent.reduce((sum, s) => sum + s.text.split(/\s+/).length, 0);
    expect(words).toBeLessThanOrEqual(MAX_WORDS_SENT);
    const places = sent.map((s) => long.findIndex((l) => l.text === s.text));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(sentencesToSend(said)).toEqual(said);
  });
});

describe('what a language model answers', () => {
  it('is sections whose lines lead to the sentences they name', () => {
    const answer =
      '## Summary\nThey take two metres [1]. It costs four hundred. [2]\n\n## Decisions\n1. Two metres [1]\n';
    const sections = sectionsOfAnswer(answer, minutes, said);
    expect(sections.map((s) => [s.heading, s.form])).toEqual([
      ['Summary', 'text'],
      ['Decisions', 'numbered'],
    ]);
    expect(linesOf(answer).map((l) => [l.text, l.startMs, l.isUncited])).toEqual([
      ['They take two metres.', 0, false],
      ['It costs four hundred.', 1000, false],
      ['Two metres', 0, false],
    ]);
  });

  it('marks what it does not rest on anything, or on what was not sent', () => {
    const answer = '## Decisions\n- Made up.\n- From nowhere [99]\n- Both [1, 99]\n- Fine [1; 2]\n';
    expect(linesOf(answer).map((l) => [l.text, l.isUncited])).toEqual([
      ['Made up.', true],
      ['From nowhere', true],
      ['Both', true],
      ['Fine', false],
    ]);
  });

  it('reads tables, check boxes and answers without headings', () => {
    const [who] = linesOf('## Other people’s to-dos\n- Bram: dig on Friday [4]\n');
    expect(who).toMatchObject({ person: 'Bram', text: 'dig on Friday', startMs: 3000 });
    expect(linesOf('## My to-dos\n- [ ] Pay the soil [2]\n')[0]!.text).toBe('Pay the soil');
    const letter = templateSchema.validateSync({ name: 'Letter', sections: [{ content: 'text', form: 'text' }] });
    expect(linesOf('Two metres are enough [1].', letter)).toMatchObject([
      { text: 'Two metres are enough.', startMs: 0 },
    ]);
  });

  it('of nothing, or of nonsense, is nothing, and never throws', () => {
    for (const odd of ['', '\n\n', '## \n', '###', '[1]', '- [1]\n- [2]', '\u0000']) {
      expect(sectionsOfAnswer(odd, minutes, said).flatMap((s) => s.groups[0]!.lines.filter((l) => !l.text))).toEqual(
        [],
      );
    }
  });
});
