import { EventEmitter } from 'node:events';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { Quality } from '@immeld/core/speech/packs';
import type { Job } from '@immeld/core/contract/jobs';
import { Problem } from '@immeld/core/contract/problem';
import { accountId, asAccount, asServer } from '../accounts/currentAccount';
import { appendDraft, clearServerDraft } from '../transcript/drafts';
import type { FileProgress } from '../recognition/transcribeFile';
import { JobRow } from '../models/job';
import { Recording } from '../models/recording';
import type { SoundStore } from '../storage/soundStore';
import { AccountTurns } from './accountTurns';
import { JobProgress, peaksSoFar } from './jobProgress';
import { jobView } from './jobView';
import { nextOlderTranscript } from './olderTranscripts';
import { candidatesOf, inQueueOrder, nextOf, waitingAccounts } from './candidates';
import { type Candidate, restOf, yieldsTo } from './queueOrder';
import { recognitionTask } from './recognitionTask';
import { saveRecognition } from './saveRecognition';
import type { WorkerProgress, WorkerResult } from './workerMessages';
import { placeWaitingSlides } from '../slides/slides';
import { writeUpAfterRecognition } from '../writeUps/usual';
import type { RecognitionPool } from './workerPool';
import { log } from '../log';

/** A recognition that was just kept needs a part of it; one that hangs is not waited for. */
const MAX_FAREWELL_MS = 1000;

const UNFINISHED = ['waiting', 'running', 'paused'] as const;
/** So many are held at most, whoever asks for it. */
const MAX_HELD = 4;

const isUnfinished = ({ state }: JobRow): boolean => UNFINISHED.some((one) => one === state);

/**
 * Recognitions in turns between accounts, of one account the short ones first; as many at once as the pool has workers. One
 * that is long pauses for short ones. All that has to outlive the server is in the database; progress is in memory and told
 * to whoever listens.
 */
export class JobQueue {
  private readonly events = new EventEmitter().setMaxListeners(0);
  private readonly live = new Map<string, JobProgress>();
  /** Those that work now, and those that the pool holds after a piece. */
  private readonly running = new Map<string, JobRow>();
  private readonly held = new Set<string>();
  private readonly turns = new AccountTurns();
  /** Everything that still asks the database. */
  private readonly atWork = new Set<Promise<unknown>>();
  private isFilling = false;
  /** Something may wait that the filling under way has not looked for. */
  private hasMore = false;
  private isClosed = false;

  constructor(
    private readonly pool: RecognitionPool,
    private readonly sounds: SoundStore,
  ) {}

  /** Takes up what a server that died had left, then works. */
  async start(): Promise<void> {
    await JobRow.update({ state: 'waiting', percent: null }, { where: { state: 'running' } });
    await Recording.update({ state: 'waiting' }, { where: { state: 'recognising' } });
    const unfinished = await JobRow.findAll({ where: { state: [...UNFINISHED] }, attributes: ['id'] });
    this.sounds.sweepPieces(new Set(unfinished.map((row) => row.id)));
    this.fill();
  }

  /** Ends what runs; the last steps of what has just been recognised are waited for, as the database is closed after them. */
  async close(): Promise<void> {
    this.isClosed = true;
    await this.pool.close();
    const farewell = new Promise((resolve) => setTimeout(resolve, MAX_FAREWELL_MS).unref());
    await Promise.race([Promise.allSettled([...this.atWork]), farewell]);
  }

  /** Adds a recognition unless one waits or runs already. */
  async add(recordingId: string, cleaning: Cleaning | null = null, quality: Quality | null = null): Promise<Job> {
    const open = await JobRow.findOne({ where: { recordingId, state: [...UNFINISHED] } });
    const row = open ?? (await this.begin(recordingId, { cleaning, quality }));
    this.fill();
    return this.announce(row);
  }

  /** The recording waits before its job can be found: one that is quick would be ready before it waits, and wait for ever. */
  private begin(recordingId: string, wish: Pick<JobRow, 'cleaning' | 'quality'>): Promise<JobRow> {
    return JobRow.sequelize!.transaction(async (transaction) => {
      await Recording.update({ state: 'waiting', problem: null }, { where: { id: recordingId }, transaction });
      return JobRow.create({ recordingId, state: 'waiting', percent: null, problem: null, ...wish }, { transaction });
    });
  }

  async cancel(id: string): Promise<Job> {
    const row = await this.get(id);
    if (!isUnfinished(row)) {
      throw new Problem('not-possible-now', 'This transcription has already finished.');
    }
    await row.update({ state: 'cancelled', percent: null });
    await Recording.update({ state: 'cancelled' }, { where: { id: row.recordingId } });
    this.pool.cancel(id);
    return this.announce(row);
  }

  async retry(id: string): Promise<Job> {
    const row = await this.get(id);
    if (row.state !== 'failed' && row.state !== 'cancelled') {
      throw new Problem('not-possible-now', 'This transcription did not fail, so there is nothing to retry.');
    }
    if (this.running.has(id) || this.held.has(id))
      throw new Problem('not-possible-now', 'This transcription is being cancelled. Try again in a moment.');
    await Recording.update({ state: 'waiting', problem: null }, { where: { id: row.recordingId } });
    await row.update({ state: 'waiting', percent: null, problem: null });
    this.fill();
    return this.announce(row);
  }

  /** Lets one that waits or runs rest until somebody resumes it. */
  async pause(id: string): Promise<Job> {
    const row = await this.get(id);
    if (row.state !== 'waiting' && row.state !== 'running')
      throw new Problem('not-possible-now', 'This transcription is not waiting or running.');
    await this.changeState(row, ['waiting', 'running'], 'paused');
    const running = this.running.get(id);
    if (running && this.held.size < MAX_HELD) this.hold(running);
    // It begins anew when it is resumed: what is held takes memory and a decoder.
    else if (running) this.pool.cancel(id);
    this.fill();
    return this.announce(row);
  }

  async resume(id: string): Promise<Job> {
    const row = await this.get(id);
    if (row.state !== 'paused') throw new Problem('not-possible-now', 'This transcription is not paused.');
    await this.changeState(row, ['paused'], 'waiting');
    this.fill();
    return this.announce(row);
  }

  /** What has ended in the meantime stays as it is. */
  private async changeState(row: JobRow, from: JobRow['state'][], to: JobRow['state']): Promise<void> {
    await JobRow.update({ state: to }, { where: { id: row.id, state: from } });
    await row.reload();
  }

  /** Has one done before all others of this account; what runs pauses for it. */
  async moveToFront(id: string): Promise<Job> {
    const row = await this.get(id);
    if (!isUnfinished(row)) throw new Problem('not-possible-now', 'This transcription has already finished.');
    await row.update({ frontAt: new Date(), ...(row.state === 'paused' ? { state: 'waiting' } : {}) });
    this.running.get(id)?.set({ frontAt: row.frontAt });
    this.fill();
    return this.announce(row);
  }

  /** Has these done before all others of this account, the first of them first. */
  async putInOrder(ids: readonly string[]): Promise<Job[]> {
    const now = Date.now();
    await JobRow.sequelize!.transaction(async (transaction) => {
      for (const [place, id] of ids.entries()) {
        const frontAt = new Date(now - place);
        await JobRow.update({ frontAt }, { where: { id, state: [...UNFINISHED] }, transaction });
      }
    });
    for (const [place, id] of ids.entries()) this.running.get(id)?.set({ frontAt: new Date(now - place) });
    this.fill();
    return this.list();
  }

  /** What runs, what waits in the order in which it comes, then what rests, has failed or was cancelled, the oldest first. */
  async list(): Promise<Job[]> {
    const rows = await JobRow.findAll({
      where: { state: [...UNFINISHED, 'failed', 'cancelled'] },
      order: [['createdAt', 'ASC']],
      include: { model: Recording, as: 'recording', where: { binnedAt: null }, required: true },
    });
    return inQueueOrder(rows, this.doneShareOf).map((row) => jobView(row, row.recording!, this.live.get(row.id)));
  }

  /** Calls `listener` for every change of a job of this account until the returned function is called. */
  listen(listener: (job: Job) => void): () => void {
    const account = accountId();
    const hear = (job: Job, owner: string) => {
      if (owner === account) listener(job);
    };
    this.events.on('job', hear);
    return () => this.events.off('job', hear);
  }

  private async get(id: string): Promise<JobRow> {
    const row = await JobRow.findByPk(id);
    if (!row) throw new Problem('not-found', 'This transcription no longer exists.');
    return row;
  }

  /** Takes up what waits, as far as workers are free. */
  fill(): void {
    this.hasMore = true;
    if (this.isFilling) return;
    this.isFilling = true;
    // The queue works for everybody, whoever's request set it going.
    this.track(asServer(() => this.fillUp()).catch((error: unknown) => log.error(error, 'The queue could not go on.')));
  }

  /** Looks once more if something came while it looked: what it had asked before may not have seen that. */
  private async fillUp(): Promise<void> {
    try {
      while (this.hasMore && !this.isClosed) {
        this.hasMore = false;
        await this.startWaiting();
      }
    } finally {
      this.isFilling = false;
    }
  }

  private track(work: Promise<unknown>): void {
    this.atWork.add(work);
    void work.finally(() => this.atWork.delete(work));
  }

  private async startWaiting(): Promise<void> {
    while (!this.isClosed) {
      const next = await this.nextInTurn();
      if (next && this.running.size >= this.pool.size && !(await this.makeRoomFor(next))) return;
      const row = next ?? (await this.nextOlder());
      if (!row || this.running.has(row.id)) return;
      const [count] = await JobRow.update({ state: 'running' }, { where: { id: row.id, state: 'waiting' } });
      if (count === 0) continue;
      await row.reload();
      this.begins(row);
    }
  }

  /** Goes on with what is held; starts what is new. */
  private begins(row: JobRow): void {
    this.running.set(row.id, row);
    this.turns.begin(row.accountId);
    if (this.held.delete(row.id)) {
      this.live.get(row.id)?.goOn();
      this.pool.goOn(row.id);
      this.track(asAccount(row.accountId, () => this.announce(row)));
      return;
    }
    this.track(
      asAccount(row.accountId, () => this.work(row))
        .catch((error: unknown) => {
          // What a server that stops could not end in time goes on at the next start.
          if (!this.isClosed) log.error(error, 'A recognition could not be ended.');
        })
        .finally(() => {
          if (!this.held.delete(row.id)) this.ends(row);
          // One that is paused, or that a server which stops leaves, goes on where it was.
          if (!isUnfinished(row)) void this.sounds.dropPieces(row.id);
          this.live.delete(row.id);
          this.fill();
        }),
    );
  }

  /** It does not work any more: it is done, or held. */
  private ends(row: JobRow): void {
    if (!this.running.delete(row.id)) return;
    this.turns.end(row.accountId);
  }

  private hold(row: JobRow): void {
    this.ends(row);
    this.held.add(row.id);
    this.live.get(row.id)?.hold();
    this.pool.hold(row.id);
  }

  /** Has the longest of what runs pause, if it is long enough beside what waits. Returns whether there is room now. */
  private async makeRoomFor(next: JobRow): Promise<boolean> {
    if (this.held.size >= MAX_HELD) return false;
    const [waiting] = await candidatesOf([next], this.doneShareOf);
    if (!waiting) return false;
    // Somebody else's work pauses for what is short, not for what was moved to the front.
    const asSeenBy = ({ row }: { row: JobRow }): Candidate =>
      row.accountId === next.accountId ? waiting : { ...waiting, frontAt: null };
    const [longest] = (await candidatesOf([...this.running.values()], this.doneShareOf))
      .filter((candidate) => yieldsTo(candidate, asSeenBy(candidate)))
      .sort((a, b) => restOf(b) - restOf(a));
    if (!longest) return false;
    this.hold(longest.row);
    // What has just ended stays as it is.
    await JobRow.update({ state: 'waiting' }, { where: { id: longest.row.id, state: 'running' } });
    await longest.row.reload();
    await asAccount(longest.row.accountId, () => this.announce(longest.row));
    return true;
  }

  private readonly doneShareOf = (jobId: string): number => (this.live.get(jobId)?.percent ?? 0) / 100;

  /** The next recognition of the account whose turn it is: who sends a hundred files waits for them, not everybody else. */
  private async nextInTurn(): Promise<JobRow | null> {
    const accountId = this.turns.next(await waitingAccounts());
    return accountId === null ? null : nextOf(accountId, this.doneShareOf);
  }

  /** While nothing else waits or runs, one of the recordings that are to be transcribed again with the better model. */
  private async nextOlder(): Promise<JobRow | null> {
    if (this.running.size + this.held.size > 0) return null;
    const next = await nextOlderTranscript();
    if (!next) return null;
    return asAccount(next.accountId, () => this.begin(next.recordingId, { cleaning: null, quality: 'usual' }));
  }

  private async work(row: JobRow): Promise<void> {
    try {
      const recording = await Recording.findByPk(row.recordingId, { rejectOnEmpty: true });
      const soundCount = recording.moreSounds.length;
      await recording.update({ state: 'recognising' });
      const goesOn = await this.sounds.hasPieces(row.id);
      const canBeRead = goesOn || (await clearServerDraft(recording));
      this.live.set(row.id, new JobProgress());
      await this.announce(row);
      const task = await recognitionTask(row, recording, this.sounds);
      const result = await this.pool.run(task, (progress) => {
        if (canBeRead && progress.draft) this.saveDraft(row, recording, progress.draft, progress);
        this.report(row, recording, progress);
      });
      await this.live.get(row.id)?.drafts;
      await this.withOwner(row, async () => {
        if (row.state === 'cancelled' || this.isClosed) return;
        await this.keep(row, result, soundCount);
      });
    } catch (error) {
      if (this.isClosed) return;
      await this.withOwner(row, async () => {
        // Cancelled, or paused where no more could be held.
        if (row.state !== 'running') return;
        const problem = error instanceof Error ? error.message : String(error);
        await row.update({ state: 'failed', problem, percent: null });
        await Recording.update({ state: 'failed', problem }, { where: { id: row.recordingId } });
      });
    }
    await this.withOwner(row, () => this.announce(row));
  }

  /** Goes on for whoever owns the job now: a guest may have signed in while it ran, and taken all along. */
  private async withOwner(row: JobRow, goOn: () => Promise<unknown>): Promise<void> {
    await asServer(() => row.reload());
    await asAccount(row.accountId, goOn);
  }

  private async keep(row: JobRow, result: WorkerResult, soundCount: number): Promise<void> {
    const recording = await Recording.findByPk(row.recordingId, { rejectOnEmpty: true });
    await saveRecognition(recording, result, this.sounds);
    // What was recognised is kept; a write-up can be made by hand.
    await writeUpAfterRecognition(recording).catch((error: unknown) =>
      log.error(error, 'The write-ups of a recording could not be made.'),
    );
    await placeWaitingSlides(recording).catch((error: unknown) =>
      log.error(error, 'The slides of a recording could not be placed.'),
    );
    await row.update({ state: 'done', percent: 100 });
    // Something was added while it was recognised.
    if (recording.moreSounds.length !== soundCount) await this.add(recording.id);
  }

  /** Has what is done be read while the rest is under way; once it is known how long the sound is, that is, too. */
  private saveDraft(
    row: JobRow,
    recording: Recording,
    { passages, peaks }: NonNullable<WorkerProgress['draft']>,
    { processedMs, durationMs }: FileProgress,
  ): void {
    const live = this.live.get(row.id);
    if (!live) return;
    const save = async () => {
      const count = await appendDraft(recording, passages, 'server');
      if (count !== null) live.passages = count;
      if (durationMs) await recording.update({ durationMs, peaks: peaksSoFar(peaks, processedMs / durationMs) });
      await this.announce(row);
    };
    live.drafts = live.drafts
      .then(() => asAccount(row.accountId, save))
      .catch((error: unknown) => log.error(error, 'The words of a running transcription could not be saved.'));
  }

  private report(row: JobRow, recording: Recording, progress: FileProgress): void {
    // The row as it stands now: one that was held goes on under another.
    const running = this.running.get(row.id);
    if (!running) return;
    this.live.get(row.id)?.hear(progress);
    this.events.emit('job', jobView(running, recording, this.live.get(row.id)), row.accountId);
  }

  private async announce(row: JobRow): Promise<Job> {
    const recording = await Recording.findByPk(row.recordingId);
    const job = jobView(row, recording, this.live.get(row.id));
    this.events.emit('job', job, row.accountId);
    return job;
  }
}
