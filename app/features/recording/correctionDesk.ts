import type { Corrected, Rewriting } from '@immeld/core/contract/corrections';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { ApiProblem } from '../../api/call';
import { editSentence } from './editSentence';
import { Listeners } from '../../state/listeners';

export type Place = { id: number; revision: number };
/** `count` passages from `at` on give place to these. */
type Step = { at: number; removed: Passage[]; added: Passage[] };
/** What was typed here and what stands there now, when both changed the same passage. */
export type Conflict = { mine: Passage[]; sentence: string; step: Step };

type Deps = {
  /** Shows the passages as they are now on this device; what the server has not yet is at `NOWHERE`. */
  show: (passages: (Passage & Place)[]) => void;
  send: (rewriting: Rewriting) => Promise<Corrected>;
  /** Fetches the recording anew, after which `begin` is called. */
  refetch: () => void;
  /** Says what was changed to those who do not see it. */
  announce: (sentence: string) => void;
  /** Keeps what is not sent yet over a reload. */
  storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;
};

const RETRY_MS = 3000;
/** The place of a passage that only this device knows. */
export const NOWHERE: Place = { id: 0, revision: 0 };

/**
 * Corrections of one recording: shown at once, sent one after the other, kept on this device until the server has
 * them, taken back and done again without end during a visit.
 */
export class CorrectionDesk {
  private passages: Passage[] = [];
  /** The passages as the server knows them. */
  private places: Place[] = [];
  private done: Step[] = [];
  private undone: Step[] = [];
  private waiting: Step[] = [];
  /** Behind one that was refused: to be put where they belong in what the server has now. */
  private parked: Step[] = [];
  /** Something was refused, so what stands here is not what the server has; nothing is sent until that is known. */
  private awaitsFresh = false;
  /** What was chosen about the first conflict in the meantime. */
  private chosen: boolean | null = null;
  private isSending = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Listeners();
  private current: {
    passages: Passage[];
    unsent: number;
    conflicts: readonly Conflict[];
    canUndo: boolean;
    canRedo: boolean;
  } = {
    ...{ passages: [], unsent: 0, conflicts: [], canUndo: false, canRedo: false },
  };

  constructor(
    private readonly key: string,
    private readonly deps: Deps,
  ) {}

  get state() {
    return this.current;
  }

  readonly subscribe = this.listeners.subscribe;

  /** Begins from what the server has; what waited here, also since an earlier visit, is put on top of it. */
  begin(passages: readonly (Passage & Place)[]): void {
    const isFirst = this.passages.length === 0;
    const isFromHere = !isFirst && passages.some((p) => p.id === NOWHERE.id);
    if (isFromHere || (this.waiting.length && !this.awaitsFresh)) return;
    this.passages = [...passages];
    this.places = passages.map(({ id, revision }) => ({ id, revision }));
    const steps = isFirst ? this.kept() : [...this.parked, ...this.waiting];
    this.parked = [];
    this.waiting = [];
    this.awaitsFresh = false;
    for (const step of steps) this.putWhereItBelongs(step);
    this.update({});
    const { chosen } = this;
    this.chosen = null;
    if (chosen !== null) this.settle(chosen);
    if (!this.waiting.length) return;
    this.show();
    this.sendLater(0);
  }

  /** Passages may have come or gone before it: it belongs where its text stands. */
  private putWhereItBelongs(step: Step): void {
    const wanted = step.removed.map(passageText);
    const standsAt = (at: number) =>
      wanted.every((text, i) => text === (this.passages[at + i] && passageText(this.passages[at + i]!)));
    const places = [step.at, ...this.passages.keys()];
    const at = places.find(standsAt);
    if (at !== undefined) return this.put({ ...step, at });
    const [first] = step.removed;
    const stands = this.passages.filter((p) => p.startMs <= first!.startMs && p.endMs > first!.startMs);
    this.addConflict(step, changedElsewhere(stands));
  }

  change(at: number, count: number, added: Passage[]): void {
    const step = { at, removed: this.passages.slice(at, at + count), added };
    this.done.push(step);
    this.undone = [];
    this.apply(step);
  }

  /**
   * Changes one passage that was opened as `base`. Has it been changed elsewhere since, both are shown instead.
   * @returns whether it was changed
   */
  correct(at: number, base: Passage, corrected: Passage): boolean {
    const stands = this.passages[at];
    if (stands && passageText(stands) === passageText(base)) {
      this.change(at, 1, [corrected]);
      return true;
    }
    this.addConflict({ at, removed: [base], added: [corrected] }, changedElsewhere(stands ? [stands] : []));
    return false;
  }

  /** Ids of passages as the server knows them, or null while a change is on its way. */
  idsOf(at: number, count: number): number[] | null {
    return this.waiting.length ? null : this.places.slice(at, at + count).map((p) => p.id);
  }

  undo(): void {
    const step = this.done.pop();
    if (!step) return;
    this.undone.push(step);
    this.apply({ at: step.at, removed: step.added, added: step.removed });
  }

  redo(): void {
    const step = this.undone.pop();
    if (!step) return;
    this.done.push(step);
    this.apply(step);
  }

  /** Ends the first conflict: with one's own words in the place of the others, or without. */
  settle(withMine: boolean): void {
    if (this.awaitsFresh) {
      this.chosen = withMine;
      return;
    }
    const [conflict, ...others] = this.current.conflicts;
    if (!conflict) return;
    this.update({ conflicts: others });
    this.keep();
    const [first] = conflict.mine;
    const from = this.passages.findIndex((p) => p.endMs > first!.startMs);
    if (!withMine || from < 0) return;
    const endMs = conflict.mine.at(-1)!.endMs;
    const count = this.passages.slice(from).filter((p) => p.startMs < endMs).length;
    this.change(from, Math.max(1, count), conflict.mine);
  }

  private apply(step: Step): void {
    this.put(step);
    this.show();
    const sentence = editSentence(step.removed, step.added);
    if (sentence) this.deps.announce(sentence);
    this.sendLater(0);
  }

  private show(): void {
    const isSent = !this.waiting.length;
    this.deps.show(this.passages.map((p, i) => ({ ...p, ...(isSent ? this.places[i]! : NOWHERE) })));
  }

  private put(step: Step): void {
    this.passages = [...this.passages];
    this.passages.splice(step.at, step.removed.length, ...step.added);
    this.waiting.push(step);
    this.keep();
  }

  private sendLater(afterMs: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), afterMs);
  }

  private async send(): Promise<void> {
    if (this.isSending || this.awaitsFresh) return;
    this.isSending = true;
    try {
      for (let step = this.waiting[0]; step; step = this.waiting[0]) {
        const replaced = this.places.slice(step.at, step.at + step.removed.length);
        const { passages } = await this.deps.send({ replaced, passages: step.added.map(written) });
        this.places.splice(step.at, step.removed.length, ...passages.map(({ id, revision }) => ({ id, revision })));
        this.waiting.shift();
        this.keep();
        if (!this.waiting.length) this.show();
      }
    } catch (error) {
      if (error instanceof ApiProblem && error.status !== null && error.status < 500) {
        const [refused, ...behind] = this.waiting;
        this.waiting = [];
        this.parked = behind;
        this.awaitsFresh = true;
        this.addConflict(refused!, error.message);
        this.deps.refetch();
      } else this.sendLater(RETRY_MS);
    } finally {
      this.isSending = false;
    }
  }

  private addConflict(step: Step, sentence: string): void {
    this.done = [];
    this.undone = [];
    this.update({ conflicts: [...this.current.conflicts, { mine: step.added, sentence, step }] });
    this.keep();
  }

  private kept(): Step[] {
    try {
      return JSON.parse(this.deps.storage.getItem(this.key) ?? '[]') as Step[];
    } catch {
      return [];
    }
  }

  private keep(): void {
    try {
      const steps = [...this.current.conflicts.map((c) => c.step), ...this.waiting, ...this.parked];
      if (steps.length) this.deps.storage.setItem(this.key, JSON.stringify(steps));
      else this.deps.storage.removeItem(this.key);
    } catch {
      // A browser that keeps nothing: what waits is sent from this page.
    }
    this.update({});
  }

  private update(part: Partial<CorrectionDesk['current']>): void {
    this.current = {
      ...this.current,
      passages: this.passages,
      ...{ unsent: this.waiting.length, canUndo: this.done.length > 0, canRedo: this.undone.length > 0 },
      ...part,
    };
    this.listeners.tell();
  }
}

const changedElsewhere = (stands: readonly Passage[]): string =>
  `This passage was also changed elsewhere. The other text is: ${stands.map(passageText).join(' ')}`;

const written = ({ startMs, endMs, speaker, startsParagraph, words }: Passage) => ({
  ...{ startMs, endMs, speaker, startsParagraph, words },
});
