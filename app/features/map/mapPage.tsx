import type { TopicMap } from '@immeld/core/contract/templates';
import { clockTime } from '@immeld/core/formats/times';
import { useRouter } from 'expo-router';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { Empty } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { Tabs } from '../../ui/tabs';
import { Title, Type } from '../../ui/type';
import { SoundPlayer } from '../recording/soundPlayer';
import { MapList } from './mapList';
import { MapView } from './mapView';

const VIEWS = [
  { key: 'picture', label: 'Map' },
  { key: 'list', label: 'List' },
] as const;

/** The map of a recording, as a picture or as a list; what is tapped plays. */
export function MapPage({ recordingId, map }: { recordingId: string; map: TopicMap }) {
  const router = useRouter();
  const [view, setView] = useState<'picture' | 'list'>('picture');
  const [player] = useState(() => new SoundPlayer(addressOf('getSound', { params: { id: recordingId } }), null));
  useEffect(() => () => player.close(), [player]);
  const play = (ms: number) => player.seek(ms, true);
  return (
    <View style={{ flex: 1, paddingHorizontal: 16, paddingTop: 8 }}>
      <Press
        label="Back to recording"
        role="link"
        onPress={() => router.navigate({ pathname: '/recordings/[id]', params: { id: recordingId } })}
        style={{ alignSelf: 'flex-start' }}
      >
        <Type size="tiny" tone="faint" numberOfLines={1}>
          ← {map.title}
        </Type>
      </Press>
      <Title>Topic map</Title>
      {map.parts.length === 0 ? (
        <Empty title="No map yet">The map needs a transcribed recording with a few complete sentences.</Empty>
      ) : (
        <>
          <Tabs tabs={VIEWS} chosen={view} onChoose={setView} label="Show topics as" />
          <View style={{ flex: 1, minHeight: 0 }}>
            {view === 'picture' ? <MapView map={map} onPlay={play} /> : <MapList map={map} onPlay={play} />}
          </View>
        </>
      )}
      <Playing player={player} />
    </View>
  );
}

function Playing({ player }: { player: SoundPlayer }) {
  const { isPlaying, timeMs, problem } = useSyncExternalStore(player.subscribe, player.getState);
  if (problem) {
    return (
      <Type role="alert" tone="rowan">
        {problem}
      </Type>
    );
  }
  if (!isPlaying) return null;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
      <Type size="small">Playing from {clockTime(timeMs)}</Type>
      <WordButton label="Stop" isBold onPress={() => player.toggle()} />
    </View>
  );
}
