import type { Appointment } from '@immeld/core/contract/appointments';
import { View } from 'react-native';
import { isCapturing, useCaptureNow } from '../../offline/deviceContext';
import { WordButton } from '../../ui/press';
import { useSpeak } from '../../ui/useSpeak';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

const time = (local: string): string => local.slice(11, 16).replace(/^0/, '');

/** "8:00 to 9:30", or the days of an appointment that lasts them. */
export const appointmentTimes = ({ start, end, isWholeDay }: Appointment): string =>
  isWholeDay ? 'all day' : `${time(start)} to ${time(end)}`;

/** An appointment as an open bracket on the day's line; what is recorded from it takes its title, people and place. */
export function AppointmentBracket({ appointment }: { appointment: Appointment }) {
  const colours = useColours();
  const speak = useSpeak(appointment);
  const isRecording = useCaptureNow(isCapturing);
  const { title, place, people, isWholeDay } = appointment;
  const details = [appointmentTimes(appointment), place, people.join(', ')].filter(Boolean).join(' · ');
  const edge = { width: 7, borderLeftWidth: 2, borderColor: colours.petrol } as const;
  return (
    <View
      role="article"
      aria-label={`Appointment: ${title}`}
      style={{ flexDirection: 'row', gap: 10, marginBottom: 8, marginTop: 2 }}
    >
      <View style={{ ...edge, borderTopWidth: 2, borderBottomWidth: 2 }} />
      <View style={{ flex: 1, minWidth: 0, paddingTop: 2 }}>
        <Type isBold numberOfLines={2}>
          {title || 'Untitled appointment'}
        </Type>
        <Type size="tiny" tone="faint">
          {details}
        </Type>
        {!isWholeDay && !isRecording && <WordButton label="Record" onPress={speak} />}
      </View>
    </View>
  );
}
