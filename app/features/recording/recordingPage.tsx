import type { Recording } from '@immeld/core/contract/recordings';
import { clockTime } from '@immeld/core/formats/times';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Pause, pausesOf } from '@immeld/core/transcript/pauses';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import { FlatList, ScrollView, View } from 'react-native';
import { addressOf } from '../../api/call';
import { useShelves } from '../../api/queries';
import { lengthName, whenSaid } from '../../ui/dates';
import { Empty } from '../../ui/notice';
import { Press } from '../../ui/press';
import { useSettings } from '../../settings/settings';
import { useIsWide } from '../../ui/shell';
import { FindBar } from '../../ui/findBar';
import { Strip } from '../../ui/strip';
import { Tabs } from '../../ui/tabs';
import { READING_WIDTH, useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { JobProgress, useJobOf } from '../tray/jobProgress';
import { titleOf } from '../tray/recordingRow';
import { About } from './about';
import {
  type Correcting,
  CorrectingContext,
  type Opened,
  nextDoubtful,
  useCorrectionDesk,
  useDesk,
} from './correcting';
import { CorrectingBar } from './correctingBar';
import type { CorrectionDesk } from './correctionDesk';
import { OneMoreThing } from './oneMoreThing';
import { Paragraph } from './paragraph';
import { PlayerBar } from './playerBar';
import { type ManuscriptRow, isTodoOnList, manuscriptRows } from './rows';
import { SlipNote } from './slipNote';
import { SoundPlayer, usePlayer } from './soundPlayer';
import { TodoSlip } from './todoSlip';
import { usePlayerKeys } from './usePlayerKeys';
import { VideoPane } from './videoPane';
import { WriteUps } from './writeUps';

const PARTS = [
  { key: 'words', label: 'Words' },
  { key: 'margin', label: 'Margin' },
  { key: 'write-ups', label: 'Write-ups' },
  { key: 'about', label: 'About' },
] as const;
type Part = (typeof PARTS)[number]['key'];

const MARGIN_WIDTH = 340;

type PageProps = { recording: Recording; startAtMs: number | null; part: string | null };

/** A recording as a manuscript with its margin. */
export function RecordingPage({ recording, startAtMs, part: asked }: PageProps) {
  const isWide = useIsWide();
  const [part, setPart] = useState<Part>(PARTS.find((p) => p.key === asked)?.key ?? (isWide ? 'margin' : 'words'));
  const player = useSound(recording, startAtMs);
  const desk = useCorrectionDesk(recording);
  const { passages } = useDesk(desk);
  const rows = useMemo(() => manuscriptRows({ ...recording, passages }), [recording, passages]);
  const correcting = useCorrectingOf(desk, player);
  const pauses = usePauses(player, passages, recording);
  usePlayerKeys(player, rows, correcting.keys);
  const marginCount = marginOf(recording).length;
  const tabs = PARTS.filter((p) => !isWide || p.key !== 'words').map((p) =>
    p.key === 'margin' && marginCount ? { ...p, label: `Margin · ${marginCount}` } : p,
  );
  const shared = { recording, player, rows, pauses };
  return (
    <CorrectingContext.Provider value={correcting.context}>
      {isWide ? (
        <WidePage {...shared} tabs={tabs} part={part === 'words' ? 'margin' : part} onPart={setPart} />
      ) : (
        <PhonePage {...shared} tabs={tabs} part={part} onPart={setPart} />
      )}
    </CorrectingContext.Provider>
  );
}

/** Sound around a doubtful word, so that it is heard in its sentence. */
const AROUND_MS = 500;

function useCorrectingOf(desk: CorrectionDesk, player: SoundPlayer) {
  const [opened, open] = useState<Opened | null>(null);
  const latest = useRef(opened);
  latest.current = opened;
  const context = useMemo((): Correcting => {
    const openDoubtful = () => {
      const { passages } = desk.state;
      const at = latest.current;
      const { timeMs } = player.getState();
      const found = nextDoubtful(passages, (passage, word) =>
        at
          ? passage > at.passage || (passage === at.passage && word > (at.word ?? -1))
          : passages[passage]!.words[word]!.startMs > timeMs,
      );
      open(found);
      const word = found && passages[found.passage]!.words[found.word!];
      if (word) player.playSpan(Math.max(0, word.startMs - AROUND_MS), word.endMs + AROUND_MS);
    };
    return { desk, opened, open, openDoubtful };
  }, [desk, player, opened]);
  const keys = useMemo(() => ({ d: context.openDoubtful }), [context]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea');
      if (isTyping || event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      if (event.shiftKey) desk.redo();
      else desk.undo();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [desk]);
  return { context, keys };
}

function useSound(recording: Recording, startAtMs: number | null): SoundPlayer {
  const { id, durationMs } = recording;
  const [player] = useState(() => new SoundPlayer(addressOf('getSound', { params: { id } }), durationMs));
  useEffect(() => {
    if (startAtMs !== null && Number.isFinite(startAtMs)) player.seek(startAtMs, true);
  }, [player, startAtMs]);
  useRememberedPlace(player, id, startAtMs === null);
  useEffect(() => () => player.close(), [player]);
  return player;
}

/** A place this near to either end is none to come back to. */
const NEAR_END_MS = 5000;

/** Goes to where one stopped listening on this device, and remembers where one stops now. */
function useRememberedPlace(player: SoundPlayer, id: string, isWanted: boolean): void {
  useEffect(() => {
    const key = `immeld-place:${id}`;
    const kept = Number(localStorage.getItem(key));
    const { durationMs } = player.getState();
    if (isWanted && kept > NEAR_END_MS && kept < (durationMs ?? 0) - NEAR_END_MS) player.seek(kept);
    let last = -1;
    return player.listen(() => {
      const second = Math.floor(player.getState().timeMs / 1000);
      if (second === last) return;
      last = second;
      try {
        localStorage.setItem(key, String(second * 1000));
      } catch {
        // A browser that keeps nothing begins at the beginning.
      }
    });
  }, [player, id, isWanted]);
}

/** The pauses that may be left out; asides are spoken, so they are none. */
function usePauses(player: SoundPlayer, passages: readonly Passage[], { slips, durationMs }: Recording): Pause[] {
  const { skipsPauses, pauseMs } = useSettings();
  const pauses = useMemo(() => {
    const asides = slips
      .filter((s) => s.kind === 'aside')
      .map(({ startMs, endMs }) => ({ startMs, endMs: endMs ?? startMs }));
    const spoken = [...passages.flatMap((p) => p.words), ...asides].sort((a, b) => a.startMs - b.startMs);
    return pausesOf(spoken, pauseMs, durationMs);
  }, [passages, slips, durationMs, pauseMs]);
  useEffect(() => player.leaveOut(skipsPauses ? pauses : []), [player, pauses, skipsPauses]);
  return pauses;
}

type LayoutProps = {
  recording: Recording;
  player: SoundPlayer;
  rows: ManuscriptRow[];
  pauses: readonly Pause[];
  tabs: readonly { key: Part; label: string }[];
  part: Part;
  onPart: (part: Part) => void;
};

function PhonePage({ recording, player, rows, pauses, tabs, part, onPart }: LayoutProps) {
  const router = useRouter();
  return (
    <View style={{ flex: 1 }}>
      <View style={{ paddingHorizontal: 16 }}>
        <Press
          label="Back"
          role="link"
          onPress={() => (router.canGoBack() ? router.back() : router.navigate('/tray'))}
          style={{ alignSelf: 'flex-start' }}
        >
          <Type size="tiny" tone="faint">
            ← <PlaceName recording={recording} />
          </Type>
        </Press>
        <Head recording={recording} />
        <VideoPane recording={recording} player={player} />
        <Sound recording={recording} player={player} height={52} />
        <Tabs tabs={tabs} chosen={part} onChoose={onPart} label="Parts of this recording" />
      </View>
      {part === 'words' ? (
        <Manuscript recording={recording} player={player} rows={rows} isWide={false} />
      ) : (
        <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingHorizontal: 16, paddingBottom: 24 }}>
          {part === 'margin' && <MarginList recording={recording} player={player} />}
          {part === 'write-ups' && <WriteUps recording={recording} player={player} />}
          {part === 'about' && <About recording={recording} />}
        </ScrollView>
      )}
      <PlayerBar player={player} pauses={pauses} isWide={false} hasSound={recording.hasSound} />
    </View>
  );
}

function WidePage({ recording, player, rows, pauses, tabs, part, onPart }: LayoutProps) {
  const colours = useColours();
  return (
    <View style={{ flex: 1 }}>
      <View style={{ flexDirection: 'row' }}>
        <View style={{ flex: 1, alignItems: 'center', minWidth: 0 }}>
          <View style={{ width: '100%', maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 }}>
            <View style={{ paddingTop: 14, paddingBottom: 16 }}>
              <FindBar isWide />
            </View>
            <Head recording={recording} />
            <Sound recording={recording} player={player} height={56} />
            <PlayerBar player={player} pauses={pauses} isWide hasSound={recording.hasSound} />
          </View>
        </View>
        <View
          style={{
            width: MARGIN_WIDTH,
            borderLeftWidth: 1,
            borderLeftColor: colours.rule,
            backgroundColor: colours.sheet,
            paddingHorizontal: 18,
            paddingTop: 14,
          }}
        >
          <VideoPane recording={recording} player={player} />
          <Tabs tabs={tabs} chosen={part} onChoose={onPart} label="Beside the words" />
        </View>
      </View>
      <View style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderTopColor: colours.rule }}>
        <View
          style={{
            ...{ position: 'absolute', right: 0, top: 0, bottom: 0, width: MARGIN_WIDTH },
            ...{ borderLeftWidth: 1, borderLeftColor: colours.rule, backgroundColor: colours.sheet },
          }}
        />
        <Manuscript recording={recording} player={player} rows={rows} isWide />
        {part !== 'margin' && (
          <View
            style={{
              position: 'absolute',
              right: 0,
              top: 0,
              bottom: 0,
              width: MARGIN_WIDTH,
              borderLeftWidth: 1,
              borderLeftColor: colours.rule,
              backgroundColor: colours.sheet,
            }}
          >
            <ScrollView contentContainerStyle={{ paddingHorizontal: 18, paddingBottom: 24 }}>
              {part === 'write-ups' ? (
                <WriteUps recording={recording} player={player} />
              ) : (
                <About recording={recording} />
              )}
            </ScrollView>
          </View>
        )}
      </View>
    </View>
  );
}

function PlaceName({ recording }: { recording: Recording }) {
  const { data } = useShelves();
  const folder = data?.folders.find((f) => f.id === recording.folderId);
  return <>{recording.isFiled ? (folder?.name ?? 'Shelves') : 'Tray'}</>;
}

function Head({ recording }: { recording: Recording }) {
  const meta = [
    whenSaid(recording.startedAt),
    recording.durationMs ? lengthName(recording.durationMs) : null,
    ...recording.tags,
  ];
  return (
    <View style={{ gap: 4, paddingBottom: 10 }}>
      <Title>{titleOf(recording)}</Title>
      <Type size="tiny" tone="faint">
        {meta.filter(Boolean).join(' · ')}
        {recording.title ? '' : ' · title proposed'}
      </Type>
    </View>
  );
}

function Sound({ recording, player, height }: { recording: Recording; player: SoundPlayer; height: number }) {
  const total = recording.durationMs ?? 0;
  const played = usePlayer(player, (s) => (total ? Math.round((s.timeMs / total) * 1000) / 1000 : 0));
  return (
    <View>
      <Strip
        peaks={recording.peaks}
        height={height}
        played={played}
        label="Place in the recording"
        valueText={`${clockTime(played * total)} of ${clockTime(total)}`}
        onSeek={(share) => player.seek(share * total)}
      />
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
        <Type size="tiny" tone="faint">
          {clockTime(played * total)}
        </Type>
        <Type size="tiny" tone="faint">
          {clockTime(total * (1 - played))} left
        </Type>
      </View>
    </View>
  );
}

type ManuscriptProps = { recording: Recording; player: SoundPlayer; rows: ManuscriptRow[]; isWide: boolean };

function Manuscript({ recording, player, rows, isWide }: ManuscriptProps) {
  const colours = useColours();
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
      onScrollToIndexFailed={({ index, averageItemLength }) =>
        list.current?.scrollToOffset({ offset: index * averageItemLength, animated: false })
      }
      style={{ flex: 1 }}
      contentContainerStyle={{ paddingVertical: 12, paddingBottom: 60, ...(isWide ? {} : { paddingHorizontal: 16 }) }}
      ListHeaderComponent={
        <View style={isWide ? { marginRight: MARGIN_WIDTH, alignItems: 'center' } : {}}>
          <View
            style={{ ...{ width: '100%' }, ...(isWide ? { maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 } : {}) }}
          >
            {job && <JobProgress job={job} />}
            <CorrectingBar />
          </View>
        </View>
      }
      ListEmptyComponent={
        job ? null : (
          <View style={{ paddingHorizontal: isWide ? 28 : 0 }}>
            <Empty title="No words">
              {recording.state === 'ready'
                ? 'No speech was heard in this recording. The sound is kept and can be played.'
                : 'The words appear here when the recording has been transcribed.'}
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
              <OneMoreThing recordingId={recording.id} />
            </View>
          </View>
        ) : null
      }
      renderItem={({ item }) =>
        isWide ? (
          <View style={{ flexDirection: 'row' }}>
            <View style={{ flex: 1, alignItems: 'center', minWidth: 0 }}>
              <View style={{ width: '100%', maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 }}>
                <Paragraph passages={item.passages} first={item.first} player={player} />
              </View>
            </View>
            <View style={{ width: MARGIN_WIDTH, paddingRight: 18, flexDirection: 'row' }}>
              <View
                style={{
                  width: 26,
                  height: 22,
                  marginLeft: -8,
                  marginRight: 0,
                  ...(item.todos.length + item.slips.length
                    ? { borderBottomWidth: 1, borderStyle: 'dashed', borderColor: colours.petrol }
                    : {}),
                }}
              />
              <View style={{ flex: 1, minWidth: 0 }}>
                <RowSlips row={item} player={player} />
              </View>
            </View>
          </View>
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
  const scrolledAt = useRef(0);
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

/** All that stands in the margin, in the order of its seconds. */
function marginOf(recording: Recording) {
  const todos = recording.todos
    .filter((t) => t.state !== 'dropped')
    .map((todo) => ({ key: todo.id, startMs: todo.startMs ?? Infinity, todo, slip: null }));
  const slips = recording.slips
    .filter((slip) => !isTodoOnList(slip))
    .map((slip) => ({ key: slip.id, startMs: slip.startMs, todo: null, slip }));
  return [...todos, ...slips].sort((a, b) => a.startMs - b.startMs);
}

function RowSlips({ row, player }: { row: ManuscriptRow; player: SoundPlayer }) {
  return (
    <>
      {row.slips.map((slip) => (
        <SlipNote key={slip.id} slip={slip} player={player} />
      ))}
      {row.todos.map((todo) => (
        <TodoSlip key={todo.id} todo={todo} player={player} />
      ))}
    </>
  );
}

function MarginList({ recording, player }: { recording: Recording; player: SoundPlayer }) {
  const margin = marginOf(recording);
  return (
    <View style={{ paddingTop: 12 }}>
      {margin.map(({ key, todo, slip }) =>
        todo ? <TodoSlip key={key} todo={todo} player={player} /> : <SlipNote key={key} slip={slip!} player={player} />,
      )}
      {margin.length === 0 && (
        <Empty title="Nothing in the margin">
          Marks and slips made while recording stand here, and to-dos that are found in what was said.
        </Empty>
      )}
    </View>
  );
}
