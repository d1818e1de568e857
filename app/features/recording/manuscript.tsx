import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import { useEffect, useRef } from 'react';
import { FlatList, View } from 'react-native';
import { Empty } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { READING_WIDTH } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useJobOf } from '../../api/queries';
import { JobProgress } from '../tray/jobProgress';
import { CorrectingBar } from './correctingBar';
import { PartsPanel } from './partsPanel';
import { marginOf } from './rows';
import { AddToRecording } from './addToRecording';
import { Paragraph } from './paragraph';
import type { ManuscriptRow } from './rows';
import { MarginNote } from './marginNote';
import { SpeakersBar } from './speakers';
import { type SoundPlayer, usePlayer } from './soundPlayer';
import { Threads } from './threads';
import { TodoSlip } from './todoSlip';

export const MARGIN_WIDTH = 340;
const DRAWN_MS = 100;

type ManuscriptProps = { recording: Recording; player: SoundPlayer; rows: ManuscriptRow[]; isWide: boolean };

/** The words of a recording, paragraph by paragraph, with the slips of the margin beside or between them. */
export function Manuscript({ recording, player, rows, isWide }: ManuscriptProps) {
  const list = useRef<FlatList<ManuscriptRow>>(null);
  const job = useJobOf(recording.id);
  useFollow(player, rows, list);
  return (
    <FlatList
      ref={list}
      data={rows}
      keyExtractor={(row) => row.key}
      initialNumToRender={6}
      windowSize={9}
      onScrollToIndexFailed={({ index, averageItemLength }) => {
        // Near it by guess; when the rows there have been drawn, to it.
        list.current?.scrollToOffset({ offset: index * averageItemLength, animated: false });
        setTimeout(() => list.current?.scrollToIndex({ index, viewPosition: 0.25, animated: false }), DRAWN_MS);
      }}
      style={{ flex: 1 }}
      contentContainerStyle={{ paddingVertical: 12, paddingBottom: 60, ...(isWide ? {} : { paddingHorizontal: 16 }) }}
      ListHeaderComponent={
        <View style={isWide ? { marginRight: MARGIN_WIDTH, alignItems: 'center' } : {}}>
          {isWide && <MarginHead recording={recording} rows={rows} list={list} />}
          <View
            style={{ ...{ width: '100%' }, ...(isWide ? { maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 } : {}) }}
          >
            {job && <JobProgress job={job} />}
            <SpeakersBar />
            <CorrectingBar recordingId={recording.id} />
            <PartsPanel recording={recording} player={player} />
          </View>
        </View>
      }
      ListEmptyComponent={
        job ? null : (
          <View style={{ paddingHorizontal: isWide ? 28 : 0 }}>
            <Empty title="No text">
              {recording.state === 'ready'
                ? 'No speech was found in this recording. The audio is saved and you can play it.'
                : 'The text appears here once the recording is transcribed.'}
            </Empty>
          </View>
        )
      }
      ListFooterComponent={
        recording.state === 'ready' ? (
          <View style={{ alignItems: 'center', ...(isWide ? { marginRight: MARGIN_WIDTH } : {}) }}>
            <View
              style={{
                ...{ width: '100%', paddingTop: 16 },
                ...(isWide ? { maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 } : {}),
              }}
            >
              <AddToRecording recordingId={recording.id} durationMs={recording.durationMs} />
            </View>
          </View>
        ) : null
      }
      renderItem={({ item }) =>
        isWide ? (
          <WideRow row={item} player={player} />
        ) : (
          <View>
            <Paragraph passages={item.passages} first={item.first} player={player} />
            <View style={{ marginLeft: 28 }}>
              <RowSlips row={item} player={player} />
            </View>
          </View>
        )
      }
    />
  );
}

const REST_AFTER_SCROLL_MS = 6000;

/** Scrolls the text along with the sound, and leaves it alone for a while after the reader has scrolled. */
function useFollow(
  player: SoundPlayer,
  rows: ManuscriptRow[],
  list: React.RefObject<FlatList<ManuscriptRow> | null>,
): void {
  const current = usePlayer(player, (s) =>
    s.isPlaying ? rows.findLastIndex((r) => r.passages[0]!.startMs <= s.timeMs) : -1,
  );
  const scrolledAt = useRef(-Infinity);
  useEffect(() => {
    const { timeMs } = player.getState();
    const at = rows.findLastIndex((r) => r.passages[0]!.startMs <= timeMs);
    if (timeMs > 0 && at > 0) list.current?.scrollToIndex({ index: at, viewPosition: 0.25, animated: false });
    // Once, to the place at which the sound begins.
  }, [player, list]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    const note = () => (scrolledAt.current = performance.now());
    window.addEventListener('wheel', note, { passive: true });
    window.addEventListener('touchmove', note, { passive: true });
    return () => {
      window.removeEventListener('wheel', note);
      window.removeEventListener('touchmove', note);
    };
  }, []);
  useEffect(() => {
    if (current < 0 || performance.now() - scrolledAt.current < REST_AFTER_SCROLL_MS) return;
    list.current?.scrollToIndex({ index: current, viewPosition: 0.25, animated: false });
  }, [current, list]);
}

type MarginHeadProps = {
  recording: Recording;
  rows: ManuscriptRow[];
  list: React.RefObject<FlatList<ManuscriptRow> | null>;
};

/** At the top of the margin: what it is for while it is empty, and the way to its first slip where that stands far below. */
function MarginHead({ recording, rows, list }: MarginHeadProps) {
  if (rows.length === 0) return null;
  const at = rows.findIndex((r) => marginOf(r).length > 0);
  return (
    <View
      style={{ position: 'absolute', left: '100%', top: 0, width: MARGIN_WIDTH, paddingHorizontal: 18, paddingTop: 6 }}
    >
      {at > 0 && (
        <WordButton
          label={`Go to the first slip at ${clockTime(rows[at]!.passages[0]!.startMs)}`}
          onPress={() => list.current?.scrollToIndex({ index: at, viewPosition: 0.25, animated: false })}
        />
      )}
      {marginOf(recording).length === 0 && (
        <Type size="small" tone="faint">
          Nothing in the margin yet. Select some text to add a mark, slip or picture beside it.
        </Type>
      )}
    </View>
  );
}

/** A paragraph with its margin beside it, and threads between them. */
function WideRow({ row, player }: { row: ManuscriptRow; player: SoundPlayer }) {
  const place = useRef<View>(null);
  return (
    <View ref={place} style={{ flexDirection: 'row' }}>
      <View style={{ flex: 1, alignItems: 'center', minWidth: 0 }}>
        <View style={{ width: '100%', maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 }}>
          <View {...({ dataSet: { text: 'true' } } as object)}>
            <Paragraph passages={row.passages} first={row.first} player={player} />
          </View>
        </View>
      </View>
      <View style={{ width: MARGIN_WIDTH, paddingRight: 18, paddingLeft: 18 }}>
        <RowSlips row={row} player={player} />
      </View>
      <Threads row={place} count={row.slips.length + row.todos.length} />
    </View>
  );
}

function RowSlips({ row, player }: { row: ManuscriptRow; player: SoundPlayer }) {
  return marginOf(row).map(({ key, startMs, todo, slip }) => (
    <View key={key} {...({ dataSet: { beside: startMs, key } } as object)}>
      {todo ? <TodoSlip todo={todo} player={player} /> : <MarginNote slip={slip!} player={player} />}
    </View>
  ));
}
