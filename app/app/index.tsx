import { addDays, format, parseISO } from 'date-fns';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { ScrollView, View } from 'react-native';
import { useDay } from '../api/queries';
import { DayNote } from '../features/day/dayNote';
import { DayPicker } from '../features/day/dayPicker';
import { DueRecall } from '../features/study/dueRecall';
import { HourLine } from '../features/day/hourLine';
import { WeekBand } from '../features/day/weekBand';
import { countName } from '../ui/counts';
import { lengthName, localDay } from '../ui/dates';
import { isInField } from '../ui/inField';
import { Empty, Failure, Loading } from '../ui/notice';
import { Press, WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { Title, Type } from '../ui/type';

export default function DayScreen() {
  const router = useRouter();
  const { date: asked } = useLocalSearchParams<{ date?: string }>();
  const now = new Date();
  const today = localDay(now);
  const date = asked && /^\d{4}-\d{2}-\d{2}$/.test(asked) ? asked : today;
  const { data, error, refetch } = useDay(date);
  const choose = (next: string) => router.setParams({ date: next });
  const move = (days: number) => choose(localDay(addDays(parseISO(date), days)));

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event) || (event.target as HTMLElement).closest('[role=slider]')) return;
      if (event.key === 'ArrowLeft') move(-1);
      if (event.key === 'ArrowRight') move(1);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });

  const said = data?.recordings.reduce((ms, r) => ms + (r.durationMs ?? 0), 0) ?? 0;
  const count = data?.recordings.length ?? 0;
  const summary = [
    count ? `${countName(count, 'recording')}, ${lengthName(said)}` : 'Nothing recorded',
    data?.appointments.length ? countName(data.appointments.length, 'appointment') : null,
    data?.todos.length ? `${countName(data.todos.length, 'to-do')} due` : null,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingBottom: 40, paddingTop: 14 }}>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <View style={{ flexGrow: 1, flexShrink: 1, flexBasis: 180, paddingBottom: 4 }}>
            <Title>{format(parseISO(date), 'EEEE d MMMM')}</Title>
            <Type size="tiny" tone="faint">
              {data ? summary : ' '}
            </Type>
          </View>
          <Press label="Previous day" onPress={() => move(-1)} style={{ alignItems: 'center' }}>
            <Type size="large">‹</Type>
          </Press>
          <Press label="Next day" onPress={() => move(1)} style={{ alignItems: 'center' }}>
            <Type size="large">›</Type>
          </Press>
        </View>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {date !== today && <WordButton label="Today" onPress={() => choose(today)} />}
          <DayPicker date={date} onChoose={choose} />
          <WordButton
            label="Weekly overview"
            onPress={() => router.push('/weeks')}
            style={{ marginLeft: 'auto', marginRight: 0 }}
          />
        </View>
        {error && !data && <Failure error={error} onRetry={() => void refetch()} />}
        {!data && !error && <Loading />}
        {data && (
          <>
            <WeekBand week={data.week} date={date} onChoose={choose} />
            {count + data.todos.length + data.appointments.length === 0 && (
              <Empty title={date === today ? 'Nothing recorded yet today' : 'Nothing on this day'}>
                This page shows your recordings by the hour, with your appointments and the to-dos that are due. Press
                Speak to record.
              </Empty>
            )}
            {date === today && <DueRecall />}
            <DayNote date={date} note={data.note} />
            <View style={{ paddingTop: 10 }}>
              <HourLine
                date={date}
                appointments={data.appointments}
                recordings={data.recordings}
                todos={data.todos}
                nowHour={date === today ? now.getHours() : null}
                nowMinute={now.getMinutes()}
                nowText={format(now, 'H:mm')}
              />
            </View>
          </>
        )}
      </ScrollView>
    </Page>
  );
}
