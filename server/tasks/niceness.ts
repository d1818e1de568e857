import os from 'node:os';

/**
 * How far work stands back behind the server's own thread: what somebody waits for, what a process does for a while, and what
 * goes on for hours. Values of setpriority(2), from 0 to 19.
 */
export const NICENESS = { awaited: 5, process: 10, recognition: 15 } as const;

/** Has this thread stand back. On Linux a priority holds for the calling thread alone (setpriority(2), notes on NPTL). */
export function lowerThisThread(niceness: number): void {
  if (process.platform === 'linux') os.setPriority(niceness);
}

/** Has a process that was just started stand back; one that has ended already is left alone. */
export function lowerProcess(pid: number, niceness: number): void {
  try {
    os.setPriority(pid, niceness);
  } catch {
    // Ended, or the system does not let us: it works all the same.
  }
}
