import { useMemo } from 'react';
import { View } from 'react-native';
import { allRecordings, useRecordings } from '../api/queries';
import { RecordingList } from '../features/tray/recordingList';
import { SelectionBar } from '../features/tray/selectionBar';
import { QueueStrip } from '../features/tray/queueStrip';
import { ThrownList } from '../features/tray/thrownList';
import { TrayCard } from '../features/tray/trayCard';
import { OutboxList } from '../features/tray/outboxList';
import { useSelection } from '../features/tray/useSelection';
import { useFiling, useFilingActions } from '../features/tray/useFiling';
import { useTrayKeys } from '../features/tray/useTrayKeys';
import { changeSettings, useSettings } from '../settings/settings';
import { Empty, Failure } from '../ui/notice';
import { OneOf } from '../ui/oneOf';
import { WordButton } from '../ui/press';
import { Page, useIsWide } from '../ui/shell';
import { useImport } from '../ui/speakBar';
import { Title, Type } from '../ui/type';

const SORTS = ['arrived', 'newest'] as const;
const SORT_NAMES = { arrived: 'arrival', newest: 'date recorded' };

export default function TrayScreen() {
  const { traySort } = useSettings();
  const filter = useMemo(() => ({ place: 'tray' as const, sort: traySort }), [traySort]);
  const { data } = useRecordings(filter);
  const { fileAll, isBusy, error } = useFiling();
  const actions = useFilingActions();
  const bringIn = useImport();
  const isWide = useIsWide();
  const chosen = useSelection();
  const total = data?.pages[0]?.total ?? 0;
  const cards = data?.pages.flatMap((p) => p.items) ?? [];
  const ready = cards.filter((r) => r.state === 'ready');
  const chooseAll = async () => {
    const all = await allRecordings(filter);
    chosen.set(all.filter((r) => r.state === 'ready').map((r) => r.id));
  };
  const current = useTrayKeys(cards, chosen);
  const header = (
    <View style={{ paddingBottom: 6 }}>
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'baseline',
          columnGap: 12,
          paddingTop: 14,
          paddingBottom: 8,
          flexWrap: 'wrap',
        }}
      >
        <Title>Tray</Title>
        <Type size="tiny" tone="faint">
          {total ? `${total} to file` : ''}
        </Type>
        {ready.length > 1 && !chosen.chosen && (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', flexShrink: 1, marginLeft: 'auto' }}>
            <WordButton label="Select" onPress={chosen.begin} />
            <WordButton
              label="File all as suggested"
              disabled={isBusy}
              onPress={() => void fileAll(ready)}
              style={{ marginRight: 0 }}
            />
          </View>
        )}
      </View>
      {chosen.chosen && (
        <SelectionBar
          ids={[...chosen.chosen]}
          where="tray"
          onChooseAll={ready.length ? chooseAll : null}
          onDone={chosen.end}
        />
      )}
      {isWide && total > 0 && (
        <Type size="tiny" tone="faint">
          Keys: arrows move between cards, Enter files, Space selects, T suggests another title, Delete moves to the
          bin.
        </Type>
      )}
      {error && <Failure error={error} />}
      {total > 1 && (
        <OneOf
          label="Sort by"
          options={SORTS}
          nameOf={(sort) => SORT_NAMES[sort]}
          chosen={traySort}
          onChoose={(sort) => changeSettings({ traySort: sort })}
        />
      )}
      <QueueStrip />
      <OutboxList />
      <ThrownList />
    </View>
  );
  return (
    <Page>
      <RecordingList
        filter={filter}
        header={header}
        redrawFor={[current, chosen.chosen]}
        renderItem={(recording) => (
          <TrayCard
            recording={recording}
            isCurrent={recording.id === current}
            isChosen={chosen.chosen && chosen.chosen.has(recording.id)}
            onChoose={chosen.toggle}
            {...actions}
          />
        )}
        empty={
          <Empty title="Everything is filed" action={<WordButton label="Import audio files" onPress={bringIn} />}>
            New recordings wait here with a suggested title, folder and to-dos. Press Speak, or import files.
          </Empty>
        }
      />
    </Page>
  );
}
