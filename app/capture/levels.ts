/** What the level display says in words. */
export type LevelWord = 'unknown' | 'good' | 'too quiet' | 'clipping' | 'silent' | 'dead';

/** Peaks come ten times a second, from 0 to 100. Limits: common practice, no source. */
const QUIET_BELOW = 3;
const SILENT_BELOW = 1;
const CLIPPED_FROM = 99;
const JUDGED = 30;
const SILENT_FOR = 300;
/** A microphone that works never gives nothing at all: of it, noise is always there. */
const DEAD_FOR_MS = 1500;

/**
 * @param peaks the newest last, 0 to 100, ten a second
 * @param nothingForMs for how long every sample has been exactly 0
 */
export function levelWord(peaks: readonly number[], nothingForMs: number): LevelWord {
  if (nothingForMs >= DEAD_FOR_MS) return 'dead';
  const recent = peaks.slice(-JUDGED);
  if (recent.filter((p) => p >= CLIPPED_FROM).length > 1) return 'clipping';
  const long = peaks.slice(-SILENT_FOR);
  if (long.length === SILENT_FOR && long.every((p) => p < SILENT_BELOW)) return 'silent';
  if (Math.max(0, ...recent) >= QUIET_BELOW) return 'good';
  return recent.length === JUDGED ? 'too quiet' : 'unknown';
}

/** Whether the person has to do something about the level. */
export const isLevelBad = (level: LevelWord): boolean => level !== 'good' && level !== 'unknown';

export const LEVEL_HINTS: Record<LevelWord, string> = {
  unknown: 'listening',
  good: 'good level',
  dead: 'Nothing arrives from the microphone. Is it muted?',
  'too quiet': 'too quiet: move closer',
  clipping: 'too loud: move back a little',
  silent: 'no sound for 30 seconds: is the microphone covered or switched off?',
};
