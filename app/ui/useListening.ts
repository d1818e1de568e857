import { useRouter } from 'expo-router';
import { useState } from 'react';
import { type Listening, listenForQuestion } from '../capture/spokenQuestion';
import { useDevice, usePackState } from '../offline/deviceContext';
import { useSettings } from '../settings/settings';
import { useUndoBar } from './undoBar';

/**
 * Listens for one sentence with the recogniser on this device; nothing is recorded.
 * @param onWords the words so far, again and again, and the whole at the end
 */
export function useListening(onWords: (text: string) => void): { isOn: boolean; toggle: () => void } {
  const router = useRouter();
  const { live, packs } = useDevice();
  const { state } = usePackState();
  const { source } = useSettings();
  const show = useUndoBar();
  const [listening, setListening] = useState<Listening | 'opening' | null>(null);
  const listen = async () => {
    if (listening) {
      if (listening !== 'opening') listening.stop();
      return;
    }
    if (state !== 'present' || !packs.pack) {
      show(
        'To use your voice here, this device needs the speech pack. Download it in the settings.',
        () => router.navigate('/settings'),
        'Settings',
      );
      return;
    }
    setListening('opening');
    live.load(packs.pack);
    const now = await listenForQuestion(live, source, onWords, (result) => {
      setListening(null);
      if ('problem' in result) show(result.problem);
      else onWords(result.text);
    });
    setListening((was) => (was === null ? null : now));
  };
  return { isOn: listening !== null, toggle: () => void listen() };
}
