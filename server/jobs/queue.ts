import { EventEmitter } from 'node:events';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { Quality } from '@immeld/core/speech/packs';
import type { Job } from '@immeld/core/contract/jobs';
import { namesFor } from '@immeld/core/speech/names/nameList';
import { Problem } from '@immeld/core/contract/problem';
import type { AsidePhrases } from '@immeld/core/language/asides';
import { accountId, asAccount, asServer } from '../accounts/currentAccount';
import { sharedSettings } from '../models/settings';
import type { FileProgress } from '../recognition/transcribeFile';
import { JobRow } from '../models/job';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import type { SoundStore } from '../storage/soundStore';
import { filingContextFor } from './filingContext';
import { nextOlderTranscript } from './olderTranscripts';
import { saveRecognition } from './saveRecognition';
import type { WorkerResult } from './workerMessages';
import { writeUpAfterRecognition } from '../writeUps/usual';
import type { RecognitionPool } from './workerPool';
import { log } from '../log';

/** Only what was recorded here is listened to for asides: others say such words without meaning them. */
async function asidesFor({ source }: Recording): Promise<AsidePhrases | null> {
  const { listensForAsides, asideOpening, asideClosing } = await sharedSettings();
  return source === 'speak' && listensForAsides ? { opening: asideOpening, closing: asideClosing } : null;
}

/** The project of a recording, by the person or as it was suggested before. */
const projectOf = async ({ projectId, suggestion }: Recording): Promise<string | null> =>
  (projectId ? (await Project.findByPk(projectId))?.name : suggestion.project) ?? null;

type Live = { percent: number | null; secondsLeft: number | null; latestWords: string; startedAt: number };

/** A recognition that was just kept needs a part of it; one that hangs is not waited for. */
const MAX_FAREWELL_MS = 1000;

const UNFINISHED = ['waiting', 'running'] as const;

/**
 * Recognitions in turns between accounts, of one account in the order they came; as many at once as the pool has workers. All that has to outlive the server
 * is in the database; progress is in memory and told to whoever listens.
 */
export class JobQueue {
  private readonly events = new EventEmitter().setMaxListeners(0);
  private readonly live = new Map<string, Live>();
  private readonly running = new Set<string>();
  /** How many run for each account. */
  private readonly atWorkFor = new Map<string, number>();
  /** Accounts in the order of their last turn. */
  private readonly turns = new Set<string>();
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
    if (row.state !== 'waiting' && row.state !== 'running') {
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
    if (this.running.has(id))
      throw new Problem('not-possible-now', 'This transcription is being cancelled. Try again in a moment.');
    await Recording.update({ state: 'waiting', problem: null }, { where: { id: row.recordingId } });
    await row.update({ state: 'waiting', percent: null, problem: null });
    this.fill();
    return this.announce(row);
  }

  /** What waits, runs or has failed and can be tried again. */
  async list(): Promise<Job[]> {
    const rows = await JobRow.findAll({
      where: { state: [...UNFINISHED, 'failed', 'cancelled'] },
      order: [['createdAt', 'ASC']],
      include: { model: Recording, as: 'recording', where: { binnedAt: null }, required: true },
    });
    return rows.map((row) => this.describe(row, row.recording!.title ?? row.recording!.fileName));
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
    while (this.running.size < this.pool.size && !this.isClosed) {
      const row = (await this.nextInTurn()) ?? (await this.nextOlder());
      if (!row || this.running.has(row.id)) return;
      this.running.add(row.id);
      this.turns.delete(row.accountId);
      this.turns.add(row.accountId);
      this.atWorkFor.set(row.accountId, (this.atWorkFor.get(row.accountId) ?? 0) + 1);
      await row.update({ state: 'running' });
      this.track(
        asAccount(row.accountId, () => this.work(row))
          .catch((error: unknown) => {
            // What a server that stops could not end in time goes on at the next start.
            if (!this.isClosed) log.error(error, 'A recognition could not be ended.');
          })
          .finally(() => {
            this.running.delete(row.id);
            this.atWorkFor.set(row.accountId, (this.atWorkFor.get(row.accountId) ?? 1) - 1);
            this.live.delete(row.id);
            this.fill();
          }),
      );
    }
  }

  /**
   * The oldest recognition of the account whose turn it is: the one with the fewest that run, then the one whose last turn is
   * longest ago. Who sends a hundred files waits for them, not everybody else.
   */
  private async nextInTurn(): Promise<JobRow | null> {
    const waiting = await JobRow.findAll({
      ...{ where: { state: 'waiting' }, attributes: ['accountId'], group: ['accountId'] },
    });
    const order = [...this.turns.keys()];
    const [next] = waiting
      .map(({ accountId }) => ({
        accountId,
        running: this.atWorkFor.get(accountId) ?? 0,
        lastTurn: order.indexOf(accountId),
      }))
      .sort((a, b) => a.running - b.running || a.lastTurn - b.lastTurn);
    if (!next) return null;
    const { accountId } = next;
    return JobRow.findOne({ where: { state: 'waiting', accountId }, order: [['createdAt', 'ASC']] });
  }

  /** While nothing else waits or runs, one of the recordings that are to be transcribed again with the better model. */
  private async nextOlder(): Promise<JobRow | null> {
    if (this.running.size > 0) return null;
    const next = await nextOlderTranscript();
    if (!next) return null;
    return asAccount(next.accountId, () => this.begin(next.recordingId, { cleaning: null, quality: 'usual' }));
  }

  private async work(row: JobRow): Promise<void> {
    try {
      const recording = await Recording.findByPk(row.recordingId, { rejectOnEmpty: true });
      const soundCount = recording.moreSounds.length;
      await recording.update({ state: 'recognising' });
      this.live.set(row.id, { percent: null, secondsLeft: null, latestWords: '', startedAt: Date.now() });
      await this.announce(row);
      const result = await this.pool.run(
        {
          jobId: row.id,
          soundFile: this.sounds.pathOf(recording.soundFile),
          moreSoundFiles: recording.moreSounds.map((s) => this.sounds.pathOf(s.soundFile)),
          expectedMs: recording.moreSounds.length ? null : recording.durationMs,
          playback: this.sounds.playbackPlan(recording.soundFile, recording.moreSounds.length),
          filing: await filingContextFor(recording),
          asides: await asidesFor(recording),
          names: namesFor((await sharedSettings()).names, await projectOf(recording)),
          cleaning: row.cleaning,
          quality: row.quality ?? (await sharedSettings()).quality,
        },
        (progress) => this.report(row, recording, progress),
      );
      await this.withOwner(row, async () => {
        if (row.state === 'cancelled' || this.isClosed) return;
        await this.keep(row, result, soundCount);
      });
    } catch (error) {
      if (this.isClosed) return;
      await this.withOwner(row, async () => {
        if (row.state === 'cancelled') return;
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
    await row.update({ state: 'done', percent: 100 });
    // Something was added while it was recognised.
    if (recording.moreSounds.length !== soundCount) await this.add(recording.id);
  }

  private report(row: JobRow, recording: Recording, { processedMs, durationMs, latestWords }: FileProgress): void {
    const live = this.live.get(row.id);
    if (!live || row.state !== 'running') return;
    live.latestWords = latestWords;
    if (durationMs) {
      const share = Math.min(0.99, processedMs / durationMs);
      live.percent = Math.round(share * 1000) / 10;
      const elapsed = (Date.now() - live.startedAt) / 1000;
      live.secondsLeft = share > 0.02 ? Math.ceil((elapsed * (1 - share)) / share) : null;
    }
    this.events.emit('job', this.describe(row, recording.title ?? recording.fileName), row.accountId);
  }

  private async announce(row: JobRow): Promise<Job> {
    const recording = await Recording.findByPk(row.recordingId);
    const job = this.describe(row, recording?.title ?? recording?.fileName ?? '');
    this.events.emit('job', job, row.accountId);
    return job;
  }

  private describe(row: JobRow, name: string): Job {
    const live = this.live.get(row.id);
    return {
      id: row.id,
      recordingId: row.recordingId,
      name,
      state: row.state,
      percent: row.state === 'done' ? 100 : (live?.percent ?? null),
      secondsLeft: row.state === 'running' ? (live?.secondsLeft ?? null) : null,
      latestWords: live?.latestWords ?? '',
      problem: row.problem,
    };
  }
}
