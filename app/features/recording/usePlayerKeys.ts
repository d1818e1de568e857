import { useEffect } from 'react';
import { settings } from '../../settings/settings';
import type { ManuscriptRow } from './rows';
import type { SoundPlayer } from './soundPlayer';
import { isOnControl } from '../../ui/inField';

/** Space plays or pauses, R repeats the passage, left and right skip, up and down go to the paragraph before and after, and what `more` says. */
export function usePlayerKeys(
  player: SoundPlayer,
  rows: readonly ManuscriptRow[],
  more: Readonly<Record<string, () => void>>,
): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        target.closest('input, textarea, [role=slider]') ||
        event.shiftKey ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey
      )
        return;
      const { timeMs } = player.getState();
      const starts = rows.map((r) => r.passages[0]!.startMs);
      const actions: Record<string, () => void> = {
        ' ': () => player.toggle(),
        ArrowLeft: () => player.skip(-settings().skipBackMs),
        ArrowRight: () => player.skip(settings().skipForwardMs),
        ArrowUp: () => player.seek(starts.findLast((s) => s < timeMs - 1500) ?? 0),
        r: () => {
          if (player.getState().isRepeating) return player.repeat(null);
          const passages = rows.flatMap((row) => row.passages);
          const now = passages.findLast((p) => p.startMs <= timeMs) ?? passages[0];
          if (now) player.repeat({ fromMs: now.startMs, toMs: now.endMs });
        },
        ArrowDown: () => player.seek(starts.find((s) => s > timeMs + 1) ?? timeMs),
      };
      const act = actions[event.key] ?? more[event.key.toLowerCase()];
      if (!act || (event.key === ' ' && isOnControl(target))) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [player, rows, more]);
}
