import type { Day } from '@immeld/core/contract/find';
import { format, parseISO } from 'date-fns';
import { ScrollView, View } from 'react-native';
import { lengthName } from '../../ui/dates';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

const HIGHEST = 34;

/** The week above the day: how much was said, as small stacks. */
export function WeekBand({
  week,
  date,
  onChoose,
}: {
  week: Day['week'];
  date: string;
  onChoose: (date: string) => void;
}) {
  const colours = useColours();
  const most = Math.max(1, ...week.map((d) => d.spokenMs));
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0, borderBottomWidth: 1, borderBottomColor: colours.rule }}
      contentContainerStyle={{ flexGrow: 1 }}
    >
      {week.map((day) => {
        const isChosen = day.date === date;
        const said = day.recordingCount
          ? `${day.recordingCount} recorded, ${lengthName(day.spokenMs)}`
          : 'nothing recorded';
        return (
          <Press
            key={day.date}
            label={`${format(parseISO(day.date), 'EEEE d MMMM')}, ${said}`}
            aria-current={isChosen ? 'date' : undefined}
            onPress={() => onChoose(day.date)}
            style={{
              flex: 1,
              alignItems: 'center',
              justifyContent: 'flex-end',
              height: 74,
              paddingBottom: 3,
              borderBottomWidth: 3,
              borderBottomColor: isChosen ? colours.ink : 'transparent',
            }}
          >
            {day.spokenMs > 0 && (
              <View
                style={{
                  width: 16,
                  height: Math.max(3, (day.spokenMs / most) * HIGHEST),
                  backgroundColor: colours.petrol,
                  opacity: isChosen ? 1 : 0.55,
                }}
              />
            )}
            <Type size="tiny" tone={isChosen ? 'ink' : 'faint'}>
              {format(parseISO(day.date), 'EEEEE d')}
            </Type>
          </Press>
        );
      })}
    </ScrollView>
  );
}
