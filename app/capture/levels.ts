/** What the level display says in words. */
export type LevelWord = 'good' | 'too quiet' | 'clipping' | 'silent';

/** Peaks come ten times a second, from 0 to 100. Limits: common practice, no source. */
const QUIET_BELOW = 3;
const SILENT_BELOW = 1;
const CLIPPED_FROM = 99;
const JUDGED = 30;
const SILENT_FOR = 300;

/** @param peaks the newest last, 0 to 100, ten a second */
export function levelWord(peaks: readonly number[]): LevelWord {
  const recent = peaks.slice(-JUDGED);
  if (recent.filter((p) => p >= CLIPPED_FROM).length > 1) return 'clipping';
  const long = peaks.slice(-SILENT_FOR);
  if (long.length === SILENT_FOR && long.every((p) => p < SILENT_BELOW)) return 'silent';
  return recent.length === JUDGED && Math.max(...recent) < QUIET_BELOW ? 'too quiet' : 'good';
}

export const LEVEL_HINTS: Record<LevelWord, string> = {
  good: 'good level',
  'too quiet': 'too quiet: move closer',
  clipping: 'too loud: move back a little',
  silent: 'no sound for 30 seconds: is the microphone covered or switched off?',
};
