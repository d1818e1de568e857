import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { Appointment } from '@immeld/core/contract/appointments';
import { useRouter } from 'expo-router';
import { useEffect, useRef } from 'react';
import { View } from 'react-native';
import { lengthName } from '../../ui/dates';
import { Press } from '../../ui/press';
import { Strip } from '../../ui/strip';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { TodoRow } from '../todos/todoRow';
import { AppointmentBracket } from './appointmentBracket';
import { titleOf } from '../tray/recordingRow';

const FIRST_HOUR = 8;
const LAST_HOUR = 18;
const hourOf = (iso: string): number => Number(iso.slice(11, 13));

/** An appointment that began the day before stands at the first hour. */
const beginHour = (a: Appointment, date: string): number => (a.start.startsWith(date) ? hourOf(a.start) : 0);

type HourLineProps = {
  date: string;
  appointments: readonly Appointment[];
  recordings: readonly RecordingCard[];
  todos: readonly Todo[];
  nowHour: number | null;
  nowMinute: number;
  nowText: string;
};

/** The day as a vertical line with hours: recordings at their hour, to-dos at the hour they are due. */
export function HourLine({ date, appointments, recordings, todos, nowHour, nowMinute, nowText }: HourLineProps) {
  const colours = useColours();
  const now = useRef<View>(null);
  useEffect(() => bringIntoSight(now.current as unknown as HTMLElement | null), [date]);
  const timed = todos.filter((t) => t.due!.length > 10);
  const timedAppointments = appointments.filter((a) => !a.isWholeDay);
  const wholeDays = appointments.filter((a) => a.isWholeDay);
  const hours = [
    ...recordings.map((r) => hourOf(r.startedAt)),
    ...timedAppointments.map((a) => beginHour(a, date)),
    ...timed.map((t) => hourOf(t.due!)),
    ...(nowHour === null ? [] : [nowHour]),
  ];
  const first = Math.min(FIRST_HOUR, ...hours);
  const last = Math.max(LAST_HOUR, ...hours);
  const wholeDay = todos.filter((t) => t.due!.length === 10);
  return (
    <View>
      {wholeDays.length > 0 && (
        <View style={{ paddingLeft: 44 }}>
          {wholeDays.map((a) => (
            <AppointmentBracket key={a.id} appointment={a} />
          ))}
        </View>
      )}
      {wholeDay.length > 0 && (
        <View style={{ paddingLeft: 44, paddingBottom: 8 }}>
          <Type size="tiny" tone="faint">
            Due today
          </Type>
          {wholeDay.map((todo) => (
            <TodoRow key={todo.id} todo={todo} />
          ))}
        </View>
      )}
      {Array.from({ length: last - first + 1 }, (_, i) => first + i).map((hour) => (
        <View
          key={hour}
          style={{
            flexDirection: 'row',
            borderTopWidth: 1,
            borderTopColor: colours.rule,
            minHeight: 44,
            paddingTop: 4,
            paddingBottom: 6,
          }}
        >
          <Type size="tiny" tone="faint" style={{ width: 44 }}>
            {hour}
          </Type>
          <View style={{ flex: 1, minWidth: 0 }}>
            {timedAppointments
              .filter((a) => beginHour(a, date) === hour)
              .map((a) => (
                <AppointmentBracket key={a.id} appointment={a} />
              ))}
            {recordings
              .filter((r) => hourOf(r.startedAt) === hour)
              .map((r) => (
                <DayRecording key={r.id} recording={r} />
              ))}
            {timed
              .filter((t) => hourOf(t.due!) === hour)
              .map((t) => (
                <TodoRow key={t.id} todo={t} />
              ))}
            {nowHour === hour && (
              // Within its hour it stands as far down as the hour has gone.
              <View
                ref={now}
                aria-label={`Now, ${nowText}`}
                role="img"
                style={{
                  ...{ position: 'absolute', left: -8, right: 0, top: `${(nowMinute / 60) * 100}%` },
                  ...{ flexDirection: 'row', alignItems: 'center', height: 12, marginTop: -6, pointerEvents: 'none' },
                }}
              >
                <View style={{ width: 10, height: 10, borderRadius: 5, backgroundColor: colours.rowan }} />
                <View style={{ flex: 1, height: 1.5, backgroundColor: colours.rowan }} />
              </View>
            )}
          </View>
        </View>
      ))}
    </View>
  );
}

/** What the bars at the top and foot of a page may cover, in pixels. */
const COVERED = 150;

/** A day opens at what it is now: late in the day its line would be below the screen. */
function bringIntoSight(line: HTMLElement | null): void {
  const top = line?.getBoundingClientRect().top;
  if (top !== undefined && (top < 0 || top > window.innerHeight - COVERED)) line!.scrollIntoView?.({ block: 'center' });
}

function DayRecording({ recording }: { recording: RecordingCard }) {
  const router = useRouter();
  const minute = recording.startedAt.slice(11, 16).replace(/^0/, '');
  const meta = [
    minute,
    recording.durationMs ? lengthName(recording.durationMs) : null,
    recording.isFiled ? null : 'in the tray',
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <Press
      label={`${titleOf(recording)}, ${meta}`}
      role="link"
      onPress={() => router.push({ pathname: '/recordings/[id]', params: { id: recording.id } })}
      style={{ paddingBottom: 8 }}
    >
      <Type isBold numberOfLines={2}>
        {titleOf(recording)}
      </Type>
      <Type size="tiny" tone="faint">
        {meta}
      </Type>
      {recording.strip.length > 0 && <Strip peaks={recording.strip} height={28} label="" />}
    </Press>
  );
}
