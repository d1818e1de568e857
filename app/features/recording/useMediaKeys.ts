import { useEffect } from 'react';
import { settings } from '../../settings/settings';
import type { SoundPlayer } from './soundPlayer';

/** Keys of the keyboard, the headset and the locked screen for what is played (W3C Media Session). */
export function useMediaKeys(player: SoundPlayer, title: string): void {
  useEffect(() => {
    if (!('mediaSession' in navigator)) return;
    const session = navigator.mediaSession;
    session.metadata = new MediaMetadata({ title, artist: 'Immeld' });
    const acts: [MediaSessionAction, MediaSessionActionHandler][] = [
      ['play', () => void player.play()],
      ['pause', () => player.getState().isPlaying && player.toggle()],
      ['seekbackward', ({ seekOffset }) => player.skip(-(seekOffset ? seekOffset * 1000 : settings().skipBackMs))],
      ['seekforward', ({ seekOffset }) => player.skip(seekOffset ? seekOffset * 1000 : settings().skipForwardMs)],
      ['seekto', ({ seekTime }) => seekTime !== undefined && player.seek(seekTime * 1000)],
    ];
    const set = (action: MediaSessionAction, act: MediaSessionActionHandler | null) => {
      try {
        session.setActionHandler(action, act);
      } catch {
        // A browser that does not know this key.
      }
    };
    for (const [action, act] of acts) set(action, act);
    return () => {
      session.metadata = null;
      for (const [action] of acts) set(action, null);
    };
  }, [player, title]);
}
