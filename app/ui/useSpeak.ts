import type { Appointment } from '@immeld/core/contract/appointments';
import { useRouter } from 'expo-router';
import { isCapturing, useCapture } from '../offline/deviceContext';
import { useSettings } from '../settings/settings';

/** Starts a recording from the chosen source, perhaps for an appointment, and shows its words as they come. */
export function useSpeak(appointment?: Appointment, more: Record<string, string> = {}): () => void {
  const engine = useCapture();
  const router = useRouter();
  const { source } = useSettings();
  return () =>
    void engine
      .start({
        sources: source,
        details: { ...detailsFor(appointment), ...more },
        ...(appointment ? { appointment } : {}),
      })
      .then(() => {
        if (isCapturing(engine.state)) router.navigate('/now');
      });
}

/** What the server is told beside the sound: with the zone it finds the appointment that was going on. */
export const detailsFor = (appointment?: Appointment): Record<string, string> => ({
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  ...(appointment ? { appointmentId: appointment.id } : {}),
});
