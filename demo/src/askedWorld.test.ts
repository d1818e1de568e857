import { DemoWorldAsked } from '@immeld/core/find/evaluation/askDemoWorld';
import * as questions from '@immeld/core/find/evaluation/questions';
import { recordingsToAsk, shippedVectors } from './askedWorld';

const recordings = recordingsToAsk(new Date(2026, 2, 12));
const world = new DemoWorldAsked(recordings, shippedVectors(), '2026-03-12');
const all = [...questions.QUESTIONS_DEV_SET, ...questions.QUESTIONS_TEST_SET];

describe('the demo world, asked', () => {
  it('has each right passage in its scripts', () => {
    for (const { from, phrases } of all) {
      const recording = recordings.find((r) => r.id === from)!;
      for (const phrase of phrases) expect([phrase, recording.timesOf(phrase)]).not.toContain(null);
    }
  });

  it('answers 60 questions with the right passage among three as often as the figures say', () => {
    expect(all.filter((q) => world.placeOfRight(q) > 0).length).toBeGreaterThanOrEqual(51);
  });

  it('refuses where nothing answers', () => {
    const refused = questions.UNANSWERABLE_TEST_SET.filter((q) => world.ask(q).quotes.length === 0);
    expect(refused.length).toBeGreaterThanOrEqual(8);
  });

  it('makes nothing up: every sentence stands in the archive', () => {
    const said = recordings.map((r) => r.passages.flatMap((p) => p.words.map((w) => w.text)).join(' '));
    for (const { question } of all) {
      for (const sentence of world.sentencesFor(question)) expect(said.some((s) => s.includes(sentence))).toBe(true);
    }
  });
});
