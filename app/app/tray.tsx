import { View } from 'react-native';
import { useRecordings } from '../api/queries';
import { RecordingList } from '../features/tray/recordingList';
import { TrayCard } from '../features/tray/trayCard';
import { OutboxList } from '../features/tray/outboxList';
import { useFiling } from '../features/tray/useFiling';
import { Empty, Failure } from '../ui/notice';
import { WordButton } from '../ui/press';
import { Page } from '../ui/shell';
import { useBringIn } from '../ui/speakBar';
import { Title, Type } from '../ui/type';

export default function TrayScreen() {
  const { data } = useRecordings({ place: 'tray' });
  const { fileAll, isBusy, error } = useFiling();
  const bringIn = useBringIn();
  const total = data?.pages[0]?.total ?? 0;
  const ready = data?.pages.flatMap((p) => p.items).filter((r) => r.state === 'ready') ?? [];
  const header = (
    <View style={{ paddingBottom: 6 }}>
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'baseline',
          gap: 12,
          paddingTop: 14,
          paddingBottom: 8,
          flexWrap: 'wrap',
        }}
      >
        <Title>Tray</Title>
        <Type size="tiny" tone="faint">
          {total ? `${total} to file` : ''}
        </Type>
        {ready.length > 1 && (
          <WordButton
            label="File all as proposed"
            disabled={isBusy}
            onPress={() => void fileAll(ready)}
            style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
          />
        )}
      </View>
      {error && <Failure error={error} />}
      <OutboxList />
    </View>
  );
  return (
    <Page>
      <RecordingList
        filter={{ place: 'tray' }}
        header={header}
        renderItem={(recording) => <TrayCard recording={recording} />}
        empty={
          <Empty title="Everything is filed" action={<WordButton label="Bring in sound files" onPress={bringIn} />}>
            New recordings wait here with a title, a folder and to-dos proposed. Press Speak below, or bring in files.
          </Empty>
        }
      />
    </Page>
  );
}
