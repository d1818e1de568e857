import type { Recording } from '@immeld/core/contract/recordings';
import type { Pause } from '@immeld/core/transcript/pauses';
import { useEffect, useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { addressOf } from '../../api/call';
import { useAppointments, useShelves } from '../../api/queries';
import { useSettings } from '../../settings/settings';
import { Back } from '../../ui/back';
import { lengthName, whenSaid } from '../../ui/dates';
import { FindBar } from '../../ui/findBar';
import { useIsWide } from '../../ui/shell';
import { Tabs } from '../../ui/tabs';
import { READING_WIDTH, useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { titleOf } from '../tray/recordingRow';
import { About } from './about';
import { CorrectingContext, useCorrectingOf, useCorrectionDesk, useDesk } from './correcting';
import { usePauses, useRememberedPlace } from './listening';
import { MARGIN_WIDTH, Manuscript } from './manuscript';
import { MarkingBar, MarksContext, wordMarksOf } from './marking';
import { MarginList } from './marginList';
import { PlayerBar } from './playerBar';
import { type Quotation, QuoteContext, QuotePanel } from './quoteInto';
import { type ManuscriptRow, manuscriptRows, marginOf } from './rows';
import { SlidePane } from './slidePane';
import { SoundPlayer } from './soundPlayer';
import { DecksContext, decksOf } from './useSlides';
import { VoiceQuestion } from './spokenKind';
import { SoundStrip } from './soundStrip';
import { SpeakersContext, useSpeakersOf } from './speakers';
import { useMediaKeys } from './useMediaKeys';
import { usePlayerKeys } from './usePlayerKeys';
import { VideoPane } from './videoPane';
import { WriteUps } from './writeUps';
import { useClosable } from '../../ui/useClosable';

const PARTS = [
  { key: 'words', label: 'Words' },
  { key: 'margin', label: 'Margin' },
  { key: 'list', label: 'List' },
  { key: 'write-ups', label: 'Write-ups' },
  { key: 'about', label: 'About' },
] as const;
type Part = (typeof PARTS)[number]['key'];

type PageProps = { recording: Recording; startAtMs: number | null; part: string | null };

/** On a wide screen the words are always there, and the margin can be read as a list, too; on the phone it is one. */
const WIDE_PARTS = PARTS.filter((p) => p.key !== 'words');
const PHONE_PARTS = PARTS.filter((p) => p.key !== 'list');

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
  useMediaKeys(player, titleOf(recording));
  const marginCount = marginOf(recording).length;
  const tabs = (isWide ? WIDE_PARTS : PHONE_PARTS).map((p) =>
    p.key === 'margin' && marginCount ? { ...p, label: `Margin · ${marginCount}` } : p,
  );
  const speaking = useSpeakersOf(recording);
  const marks = useMemo(() => wordMarksOf(recording.slips), [recording.slips]);
  const decks = useMemo(() => decksOf(recording), [recording]);
  const [quotation, setQuotation] = useClosable<Quotation | null>(null);
  // Asked for before “About” is opened: coming late, they would push what is about to be pressed out of place.
  useAppointments(recording.startedAt.slice(0, 10), true);
  const shared = { recording, player, rows, pauses };
  return (
    <CorrectingContext.Provider value={correcting.context}>
      <SpeakersContext.Provider value={speaking}>
        <MarksContext.Provider value={marks}>
          <DecksContext.Provider value={decks}>
            <QuoteContext.Provider value={setQuotation}>
              {isWide ? (
                <WidePage {...shared} tabs={tabs} part={part === 'words' ? 'margin' : part} onPart={setPart} />
              ) : (
                <PhonePage {...shared} tabs={tabs} part={part === 'list' ? 'margin' : part} onPart={setPart} />
              )}
              <MarkingBar recording={recording} player={player} />
              {quotation && (
                <QuotePanel
                  recordingId={recording.id}
                  title={titleOf(recording)}
                  quotation={quotation}
                  onClose={() => setQuotation(null)}
                />
              )}
            </QuoteContext.Provider>
          </DecksContext.Provider>
        </MarksContext.Provider>
      </SpeakersContext.Provider>
    </CorrectingContext.Provider>
  );
}

function useSound(recording: Recording, startAtMs: number | null): SoundPlayer {
  const { id, durationMs } = recording;
  const [player] = useState(() => new SoundPlayer(addressOf('getSound', { params: { id } }), durationMs));
  useEffect(() => {
    if (startAtMs !== null && Number.isFinite(startAtMs)) player.seek(startAtMs, true);
  }, [player, startAtMs]);
  useRememberedPlace(player, id, startAtMs === null);
  const { cleaning } = useSettings();
  useEffect(() => void player.clean(cleaning), [player, cleaning]);
  useEffect(() => () => player.close(), [player]);
  return player;
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
  return (
    <View style={{ flex: 1 }}>
      <View style={{ paddingHorizontal: 16 }}>
        <Back home="/tray" size="tiny">
          <PlaceName recording={recording} />
        </Back>
        <Head recording={recording} />
        <VideoPane recording={recording} player={player} />
        <SlidePane recording={recording} player={player} isWide={false} />
        <SoundStrip recording={recording} player={player} height={52} />
        <Tabs tabs={tabs} chosen={part} onChoose={onPart} label="Views of this recording" />
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
  const [headHeight, setHeadHeight] = useState(0);
  const column = { position: 'absolute', right: 0, top: 0, width: MARGIN_WIDTH } as const;
  const sheet = { borderLeftWidth: 1, borderLeftColor: colours.rule, backgroundColor: colours.sheet };
  // Without words nothing can stand beside them.
  const isBeside = part === 'margin' && rows.length > 0;
  return (
    <View style={{ flex: 1 }}>
      <View style={{ flexDirection: 'row', minHeight: headHeight }}>
        <View style={{ flex: 1, alignItems: 'center', minWidth: 0 }}>
          <View style={{ width: '100%', maxWidth: READING_WIDTH + 56, paddingHorizontal: 28 }}>
            <View style={{ paddingTop: 14, paddingBottom: 16 }}>
              <FindBar isWide />
            </View>
            <Head recording={recording} />
            <SoundStrip recording={recording} player={player} height={56} />
            <PlayerBar player={player} pauses={pauses} isWide hasSound={recording.hasSound} />
          </View>
        </View>
        <View style={{ width: MARGIN_WIDTH, ...sheet }} />
      </View>
      <View style={{ flex: 1, minHeight: 0, borderTopWidth: 1, borderTopColor: colours.rule }}>
        <View style={{ ...column, bottom: 0, ...sheet }} />
        <Manuscript recording={recording} player={player} rows={rows} isWide />
      </View>
      {/* What stands beside the words scrolls with them; everything else has the whole height to itself. */}
      <View style={{ ...column, ...sheet, ...(isBeside ? {} : { bottom: 0 }) }}>
        <View
          style={{ paddingHorizontal: 18, paddingTop: 14 }}
          onLayout={({ nativeEvent }) => setHeadHeight(nativeEvent.layout.height)}
        >
          <VideoPane recording={recording} player={player} />
          <SlidePane recording={recording} player={player} isWide />
          <Tabs tabs={tabs} chosen={part} onChoose={onPart} label="Beside the text" />
        </View>
        {!isBeside && (
          <ScrollView
            style={{ flex: 1 }}
            contentContainerStyle={{ paddingHorizontal: 18, paddingTop: 14, paddingBottom: 24 }}
          >
            {(part === 'margin' || part === 'list') && <MarginList recording={recording} player={player} />}
            {part === 'write-ups' && <WriteUps recording={recording} player={player} />}
            {part === 'about' && <About recording={recording} />}
          </ScrollView>
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

/** Whose words these are while it is not transcribed. */
function draftWords({ draft, state }: Recording): string | null {
  if (draft === 'device') return 'words from the device';
  if (draft === null) return null;
  return state === 'waiting' || state === 'recognising' ? 'the first part, more follows' : 'only the first part';
}

function Head({ recording }: { recording: Recording }) {
  const meta = [
    whenSaid(recording.startedAt),
    recording.durationMs ? lengthName(recording.durationMs) : null,
    draftWords(recording),
    ...recording.tags,
  ];
  return (
    <View style={{ gap: 4, paddingBottom: 10 }}>
      <Title>{titleOf(recording)}</Title>
      <Type size="tiny" tone="faint">
        {meta.filter(Boolean).join(' · ')}
        {recording.title || !recording.suggestion.title ? '' : ' · suggested title'}
      </Type>
      <VoiceQuestion recording={recording} />
    </View>
  );
}
