import fc from 'fast-check';
import { type KnownTodo, reconcile } from './reconcile';

const known = (id: string, text: string, startMs: number | null, more: Partial<KnownTodo> = {}): KnownTodo => ({
  ...{ id, text, foundText: text, startMs, isFixed: false },
  ...more,
});
const found = (text: string, startMs: number | null = 1000) => ({ text, startMs });

describe('to-dos found again', () => {
  it('are known by wording and place; what is new is added, what is gone goes', () => {
    const again = [found('Call the nursery', 1200), found('Buy stamps', 9000)];
    expect(reconcile([known('a', 'Call the nursery', 1000), known('b', 'Sweep the shed', 4000)], again)).toEqual({
      ...{ add: [again[1]], update: [{ id: 'a', found: again[0] }], remove: ['b'] },
    });
  });

  it('leave alone what a person accepted, dropped or reworded, and do not come a second time', () => {
    const mine = known('a', 'Ring Noor about the trees', 1000, { foundText: 'Call the nursery', isFixed: true });
    expect(reconcile([mine], [found('Call the nursery')])).toEqual({ add: [], update: [], remove: [] });
    expect(
      reconcile([known('b', 'Buy milk', null, { foundText: null, isFixed: true })], [found('Buy milk')]).add,
    ).toEqual([]);
  });

  it('of one sentence are told apart: one accepted leaves the others', () => {
    const accepted = known('a', 'Plan the clip', 1000, { isFixed: true });
    expect(reconcile([accepted], [found('Plan the clip'), found('Upload the clip')]).add).toEqual([
      found('Upload the clip'),
    ]);
  });

  it('said twice in one recording, far apart, are two', () => {
    expect(
      reconcile(
        [known('a', 'Water the small apples', 0)],
        [found('Water the apples', 0), found('Water the apples', 600_000)],
      ).add,
    ).toHaveLength(1);
  });

  it('are never doubled and never lost, whatever is known', () => {
    const text = fc.constantFrom('Call Bram', 'Buy milk', 'Buy bread', 'Send the plan', 'Sweep the shed');
    const place = fc.integer({ min: 0, max: 100_000 });
    const ofKnown = fc
      .record({ id: fc.uuid(), text, startMs: place, isFixed: fc.boolean() })
      .map((k) => ({ ...k, foundText: k.text }));
    const ofFound = fc.record({ text, startMs: place });
    fc.assert(
      fc.property(
        fc.uniqueArray(ofKnown, { selector: (k) => k.id, maxLength: 8 }),
        fc.array(ofFound, { maxLength: 8 }),
        (k, f) => {
          const { add, update, remove } = reconcile(k, f);
          const fixed = k.filter((one) => one.isFixed).map((one) => one.id);
          expect([...update.map((u) => u.id), ...remove].some((id) => fixed.includes(id))).toBe(false);
          expect(update.length + remove.length).toBe(k.length - fixed.length);
          expect(add.length + update.length).toBeLessThanOrEqual(f.length);
          // Once reconciled, the same again changes nothing.
          const now = [
            ...k.filter((one) => one.isFixed),
            ...update.map((u) => known(u.id, u.found.text, u.found.startMs)),
            ...add.map((a, i) => known(`new-${i}`, a.text, a.startMs)),
          ];
          expect(reconcile(now, f).add).toEqual([]);
        },
      ),
    );
  });
});
