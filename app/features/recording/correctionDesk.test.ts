/** @jest-environment node */
import type { Rewriting } from '@immeld/core/contract/corrections';
import { joinPassages, retimeWords, splitPassage } from '@immeld/core/transcript/edit';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { ApiProblem } from '../../api/call';
import { CorrectionDesk, type Place } from './correctionDesk';

const passage = (text: string, startMs: number): Passage => ({
  ...{ startMs, endMs: startMs + 5000, speaker: null, startsParagraph: true },
  words: text
    .split(' ')
    .map((t, i) => ({ text: t, startMs: startMs + i * 500, endMs: startMs + i * 500 + 400, confidence: 0.6 })),
});

/** The server's side: refuses what was made on another revision, as the real one does. */
class FakeServer {
  stored: (Passage & Place)[] = [passage('one two three', 0), passage('four five', 6000), passage('six', 12_000)].map(
    (p, i) => ({ ...p, id: i + 1, revision: 0 }),
  );
  isAway = false;
  private nextId = 10;
  send = async ({ replaced, passages }: Rewriting) => {
    if (this.isAway) throw new ApiProblem('The server cannot be reached.', '', null);
    const at = this.stored.findIndex((p) => p.id === replaced[0]!.id);
    if (replaced.some((r, i) => this.stored[at + i]?.id !== r.id || this.stored[at + i]?.revision !== r.revision)) {
      throw new ApiProblem(`There it reads: ${this.stored[at] ? passageText(this.stored[at]) : ''}`, '', 409);
    }
    const fresh = passages.map((p, i) => ({
      ...p,
      id: replaced[i]?.id ?? this.nextId++,
      revision: (replaced[i]?.revision ?? -1) + 1,
    }));
    this.stored.splice(at, replaced.length, ...fresh);
    return { passages: fresh, removed: [] };
  };
  get text() {
    return this.stored.map(passageText).join(' | ');
  }
}

function open(server: FakeServer, kept = new Map<string, string>(), refetchMs = 0) {
  let shown: readonly Passage[] = server.stored;
  const said: string[] = [];
  const storage = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  };
  const desk: CorrectionDesk = new CorrectionDesk('desk', {
    show: (passages) => {
      shown = passages;
      // As on the page: whatever is shown is handed to the desk again.
      desk.begin(passages);
    },
    send: server.send,
    refetch: () =>
      refetchMs ? void setTimeout(() => desk.begin(server.stored), refetchMs) : desk.begin(server.stored),
    announce: (sentence) => void said.push(sentence),
    storage,
  });
  desk.begin(server.stored);
  const correct = (at: number, text: string) =>
    desk.change(at, 1, [{ ...shown[at]!, words: retimeWords(shown[at]!.words, text, shown[at]!) }]);
  return { desk, correct, kept, said, shown: () => shown, text: () => shown.map(passageText).join(' | ') };
}
const settled = () => jest.advanceTimersByTimeAsync(10);
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

describe('corrections', () => {
  it('are shown at once and sent in their order', async () => {
    const server = new FakeServer();
    const { correct, desk, text } = open(server);
    correct(0, 'one two THREE');
    correct(1, 'four');
    expect(text()).toBe('one two THREE | four | six');
    expect(desk.state.unsent).toBe(2);
    await settled();
    expect(server.text).toBe(text());
    expect(desk.state.unsent).toBe(0);
  });

  it('are taken back and done again to the letter, over splitting and joining', async () => {
    const server = new FakeServer();
    const before = structuredClone(server.stored.map(({ words, startMs }) => ({ words, startMs })));
    const { desk, correct, shown, text } = open(server);
    desk.change(0, 1, splitPassage(shown()[0]!, 1));
    desk.change(1, 2, [joinPassages(shown()[1]!, shown()[2]!)]);
    correct(1, 'two changed five');
    await settled();
    expect(server.text).toBe('one | two changed five | six');
    for (let i = 0; i < 5; i++) desk.undo();
    await settled();
    expect(server.stored.map(({ words, startMs }) => ({ words, startMs }))).toEqual(before);
    for (let i = 0; i < 5; i++) desk.redo();
    await settled();
    expect(server.text).toBe('one | two changed five | six');
    expect(server.text).toBe(text());
  });

  it('are said to those who do not see them, also when they are taken back', async () => {
    const { desk, correct, said, shown } = open(new FakeServer());
    correct(2, 'seven');
    desk.undo();
    desk.redo();
    desk.change(1, 1, splitPassage(shown()[1]!, 1));
    desk.undo();
    await settled();
    expect(said).toEqual([
      'Replaced six with seven',
      'Replaced seven with six',
      'Replaced six with seven',
      'Split. The new passage begins: five',
      'Merged with the previous passage: four five',
    ]);
  });

  it('wait on this device while the server is away, also over a reload', async () => {
    const server = new FakeServer();
    server.isAway = true;
    const first = open(server);
    first.correct(2, 'seven');
    await settled();
    expect(first.desk.state.unsent).toBe(1);
    server.isAway = false;
    const second = open(server, first.kept);
    expect(second.text()).toBe('one two three | four five | seven');
    await settled();
    expect(server.text).toBe('one two three | four five | seven');
    expect(second.kept.size).toBe(0);
  });

  it('of two devices in different passages are both kept', async () => {
    const server = new FakeServer();
    const [here, there] = [open(server), open(server)];
    here.correct(0, 'here');
    there.correct(2, 'there');
    await settled();
    expect(server.text).toBe('here | four five | there');
  });

  it.each([true, false])(
    'of two devices in the same passage: both are shown, and one is chosen (%s)',
    async (withMine) => {
      const server = new FakeServer();
      const [here, there] = [open(server), open(server)];
      here.correct(0, 'first come');
      await settled();
      there.correct(0, 'second come');
      await settled();
      expect(there.desk.state.conflicts[0]).toMatchObject({ sentence: 'There it reads: first come' });
      expect(passageText(there.desk.state.conflicts[0]!.mine[0]!)).toBe('second come');
      there.desk.settle(withMine);
      await settled();
      expect(server.text).toBe(`${withMine ? 'second' : 'first'} come | four five | six`);
      expect(there.desk.state.conflicts).toEqual([]);
      expect(there.kept.size).toBe(0);
    },
  );

  it('of two devices are settled before it is known what the server has now', async () => {
    const server = new FakeServer();
    const here = open(server);
    const there = open(server, new Map(), 2000);
    here.correct(0, 'first come');
    await settled();
    there.correct(0, 'second come');
    await settled();
    there.desk.settle(true);
    there.correct(2, 'in the meantime');
    await jest.advanceTimersByTimeAsync(1000);
    expect(server.text).toBe('first come | four five | six');
    await jest.advanceTimersByTimeAsync(2000);
    expect(server.text).toBe('second come | four five | in the meantime');
    expect(there.desk.state).toMatchObject({ conflicts: [], unsent: 0 });
    expect(there.kept.size).toBe(0);
  });

  it('know their places again once they are sent, for whoever opens the page anew', async () => {
    const server = new FakeServer();
    const { correct, desk, shown } = open(server);
    correct(0, 'changed');
    expect(shown()).toMatchObject([{ id: 0 }, { id: 0 }, { id: 0 }]);
    await settled();
    expect(shown()).toMatchObject(server.stored.map(({ id, revision }) => ({ id, revision })));
    desk.undo();
    await settled();
    expect(server.text).toBe('one two three | four five | six');
  });

  it('that were begun before another device changed the passage do not write over it', async () => {
    const server = new FakeServer();
    const [here, there] = [open(server), open(server)];
    const opened = there.shown()[0]!;
    here.correct(0, 'first come');
    await settled();
    there.desk.begin(server.stored);
    expect(there.desk.correct(0, opened, passage('second come', 0))).toBe(false);
    expect(there.desk.state.conflicts[0]!.sentence).toContain('The other text is: first come');
    await settled();
    expect(server.text).toBe('first come | four five | six');
  });

  it('behind one that is refused find their place, and the refused one outlives a reload', async () => {
    const server = new FakeServer();
    const [here, there] = [open(server), open(server)];
    server.isAway = true;
    there.correct(0, 'mine');
    there.correct(2, 'behind it');
    await settled();
    server.isAway = false;
    here.desk.change(
      0,
      1,
      splitPassage(
        { ...here.shown()[0]!, words: retimeWords(here.shown()[0]!.words, 'theirs now', here.shown()[0]!) },
        1,
      ),
    );
    await settled();
    await jest.advanceTimersByTimeAsync(5000);
    expect(server.text).toBe('theirs | now | four five | behind it');
    expect(there.desk.state.conflicts.map((c) => passageText(c.mine[0]!))).toEqual(['mine']);
    const again = open(server, there.kept);
    expect(again.desk.state.conflicts.map((c) => passageText(c.mine[0]!))).toEqual(['mine']);
    again.desk.settle(true);
    await settled();
    expect(server.text).toBe('mine | four five | behind it');
    expect(again.kept.size).toBe(0);
  });
});
