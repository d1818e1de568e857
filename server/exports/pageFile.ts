import { inWorker } from '../jobs/inWorker';
import type { PageTask } from './pageWorker';

/** A 5-hour recording needs a part of it; more would be taken from everybody else. */
const MOST_MEGABYTES = 1500;

/** A Word document or PDF, made beside the server's own thread; `signal` ends it. */
export const pageFile = async (task: PageTask, signal: AbortSignal): Promise<Buffer> =>
  Buffer.from(
    await inWorker<Uint8Array>('pageWorker', task, {
      signal,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    }),
  );
