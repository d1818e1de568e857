import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { WordButton } from '../ui/press';
import { useColours } from '../ui/theme';
import { Type } from '../ui/type';
import { isCapturing, useCaptureNow } from './deviceContext';

/** Keeps the app for days without a network; offers a newer version, never while something is being recorded. */
export function UpdateNotice() {
  const colours = useColours();
  const isRecording = useCaptureNow(isCapturing);
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);

  useEffect(() => {
    const { serviceWorker } = navigator;
    if (!serviceWorker) return;
    let isGone = false;
    const offer = (registration: ServiceWorkerRegistration) => {
      if (!isGone && registration.waiting && serviceWorker.controller) setWaiting(registration.waiting);
    };
    void serviceWorker
      .register('/service-worker.js')
      .then((registration) => {
        offer(registration);
        registration.addEventListener('updatefound', () => {
          const fresh = registration.installing;
          fresh?.addEventListener('statechange', () => fresh.state === 'installed' && offer(registration));
        });
      })
      // Private windows and some settings forbid it: the app then needs the network to open.
      .catch(() => undefined);
    return () => {
      isGone = true;
    };
  }, []);

  const takeOver = () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
    waiting?.postMessage('take-over');
  };
  if (!waiting || isRecording) return null;
  return (
    <View
      role="status"
      style={{
        ...{ flexDirection: 'row', alignItems: 'center', gap: 16, paddingHorizontal: 16, flexWrap: 'wrap' },
        ...{ backgroundColor: colours.sheet, borderBottomWidth: 1, borderBottomColor: colours.rule },
      }}
    >
      <Type size="tiny">A new version of Immeld is ready.</Type>
      <WordButton label="Update now" onPress={takeOver} />
    </View>
  );
}
