import type { Week } from '@immeld/core/contract/find';
import { format, parseISO, startOfWeek } from 'date-fns';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useWeeks } from '../api/queries';
import { WeekChart } from '../features/weeks/weekChart';
import { scopeAddress } from '../features/writeUps/scopeAddress';
import { lengthName, localDay } from '../ui/dates';
import { Failure, Loading } from '../ui/notice';
import { OneOf } from '../ui/oneOf';
import { WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { useColours } from '../ui/theme';
import { Title, Type } from '../ui/type';

const SPANS = ['12', '26', '52'] as const;
const MINUTE_MS = 60_000;

/** How much was recorded, transcribed and done, week by week: as pictures and as a table. */
export default function WeeksScreen() {
  const [span, setSpan] = useState<(typeof SPANS)[number]>('12');
  const router = useRouter();
  const [width, setWidth] = useState(0);
  const { data, error, refetch } = useWeeks(localDay(new Date()), Number(span));
  const weeks = data?.weeks ?? [];
  const labels = weeks.map((w) => format(parseISO(w.monday), 'd MMM'));
  const sum = (of: (w: Week) => number) => weeks.reduce((total, w) => total + of(w), 0);
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}>
        <Title>Weekly overview</Title>
        <WordButton
          label="Write up this week"
          onPress={() => {
            const today = new Date();
            const monday = startOfWeek(today, { weekStartsOn: 1 });
            router.push({
              pathname: '/together',
              params: scopeAddress({ from: localDay(monday), to: localDay(today) }),
            });
          }}
        />
        <OneOf label="Weeks to show" options={SPANS} nameOf={(s) => s} chosen={span} onChoose={setSpan} />
        {error && !data && <Failure error={error} onRetry={() => void refetch()} />}
        {!data && !error && <Loading />}
        <View onLayout={(event) => setWidth(Math.floor(event.nativeEvent.layout.width))}>
          {data && width > 0 && (
            <>
              <WeekChart
                title="Minutes recorded"
                summary={`${lengthName(sum((w) => w.spokenMs))} in total, ${lengthName(sum((w) => w.transcribedMs))} transcribed`}
                labels={labels}
                series={[{ name: 'minutes', values: weeks.map((w) => w.spokenMs / MINUTE_MS), tone: 'petrol' }]}
                width={width}
                formatTick={(v) => String(v)}
              />
              <WeekChart
                title="Recordings by source"
                summary={`${sum((w) => w.spoken)} recorded here, ${sum((w) => w.broughtIn)} imported`}
                labels={labels}
                series={[
                  { name: 'recorded here', values: weeks.map((w) => w.spoken), tone: 'petrol' },
                  { name: 'imported', values: weeks.map((w) => w.broughtIn), tone: 'ochre' },
                ]}
                width={width}
                formatTick={(v) => (Number.isInteger(v) ? String(v) : '')}
              />
              <WeekChart
                title="To-dos done"
                summary={`${sum((w) => w.todosDone)} done, ${sum((w) => w.todosFound)} found`}
                labels={labels}
                series={[{ name: 'done', values: weeks.map((w) => w.todosDone), tone: 'lichen' }]}
                width={width}
                formatTick={(v) => (Number.isInteger(v) ? String(v) : '')}
              />
            </>
          )}
        </View>
        {data && <WeekTable weeks={weeks} />}
      </ScrollView>
    </Page>
  );
}

const COLUMNS: { name: string; of: (w: Week) => string }[] = [
  { name: 'Week of', of: (w) => format(parseISO(w.monday), 'd MMM yyyy') },
  { name: 'Recorded', of: (w) => (w.spokenMs ? lengthName(w.spokenMs) : '–') },
  { name: 'Recordings', of: (w) => String(w.spoken + w.broughtIn) },
  { name: 'To-dos done', of: (w) => String(w.todosDone) },
];

function WeekTable({ weeks }: { weeks: readonly Week[] }) {
  const colours = useColours();
  const row = {
    flexDirection: 'row' as const,
    borderBottomWidth: 1,
    borderBottomColor: colours.rule,
    paddingVertical: 6,
  };
  return (
    <View role="table" aria-label="Table of weeks" style={{ paddingTop: 22 }}>
      <View role="row" style={row}>
        {COLUMNS.map(({ name }) => (
          <Type key={name} role="columnheader" size="tiny" tone="faint" style={{ flex: 1 }}>
            {name}
          </Type>
        ))}
      </View>
      {[...weeks].reverse().map((week) => (
        <View key={week.monday} role="row" style={row}>
          {COLUMNS.map(({ name, of }) => (
            <Type key={name} role="cell" size="small" style={{ flex: 1 }}>
              {of(week)}
            </Type>
          ))}
        </View>
      ))}
    </View>
  );
}
