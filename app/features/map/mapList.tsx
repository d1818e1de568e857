import type { TopicMap } from '@immeld/core/contract/templates';
import { clockTime } from '@immeld/core/formats/times';
import { ScrollView, View } from 'react-native';
import { Press } from '../../ui/press';
import { Type } from '../../ui/type';

type MapListProps = { map: TopicMap; onPlay: (ms: number) => void };

/** The same topics one under the other, then the terms that come back with their moments. */
export function MapList({ map, onPlay }: MapListProps) {
  return (
    <ScrollView contentContainerStyle={{ paddingBottom: 32 }}>
      <View role="list" aria-label={`Topics of ${map.title}`}>
        {map.parts.map((part, i) => (
          <View role="listitem" key={i} style={{ paddingTop: 10 }}>
            {part.title !== null && <ListedTopic text={part.title} startMs={part.startMs} isPart onPlay={onPlay} />}
            <View role="list" aria-label={part.title ?? 'Points'} style={{ paddingLeft: part.title === null ? 0 : 22 }}>
              {part.points.map((point) => (
                <View role="listitem" key={point.startMs}>
                  <ListedTopic {...point} onPlay={onPlay} />
                </View>
              ))}
            </View>
          </View>
        ))}
      </View>
      {map.terms.length > 0 && (
        <View role="list" aria-label="Terms that come back" style={{ paddingTop: 20 }}>
          {map.terms.map(({ text, saidMs }) => (
            <View role="listitem" key={text} style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
              <Type isBold style={{ marginRight: 8 }}>
                {text}
              </Type>
              {saidMs.map((ms) => (
                <Press
                  key={ms}
                  label={`${text} Play ${clockTime(ms)}`}
                  onPress={() => onPlay(ms)}
                  style={{ alignItems: 'center' }}
                >
                  <Type size="tiny" tone="petrol">
                    {clockTime(ms)}
                  </Type>
                </Press>
              ))}
            </View>
          ))}
        </View>
      )}
    </ScrollView>
  );
}

type ListedProps = { text: string; startMs: number; isPart?: boolean; onPlay: (ms: number) => void };

function ListedTopic({ text, startMs, isPart = false, onPlay }: ListedProps) {
  return (
    <Press label={`${text} Play ${clockTime(startMs)}`} onPress={() => onPlay(startMs)} style={{ paddingVertical: 4 }}>
      <Type size="body" face={isPart ? 'face' : 'text'} isBold={isPart}>
        {text}
        <Type size="tiny" tone="petrol">
          {'  '}
          {clockTime(startMs)}
        </Type>
      </Type>
    </Press>
  );
}
