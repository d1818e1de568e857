import type { NewSlip } from '@immeld/core/contract/slips';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { clockTime } from '@immeld/core/formats/times';
import { useDevice, useOutbox } from '../../offline/deviceContext';
import { Back } from '../../ui/back';
import { lengthName, spokenName } from '../../ui/dates';
import { Field } from '../../ui/field';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { Empty, Loading } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { READING_WIDTH } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useCaptureText } from './useCaptureText';

/** A recording with the words that this device heard: to be read, heard, corrected and marked before it is sent. */
export function HerePage({ captureId }: { captureId: string }) {
  const router = useRouter();
  const { items } = useOutbox();
  const item = items.find((i) => i.id === captureId);
  const { passages, slips, ...changes } = useCaptureText(captureId);
  const sound = useSoundHere(captureId);
  const [edited, setEdited] = useState<number | null>(null);
  // Sent while it is read, it goes on being read where it is now.
  const recordingId = item?.state === 'sent' ? item.recordingId : null;
  useEffect(() => {
    if (recordingId) router.replace({ pathname: '/recordings/[id]', params: { id: recordingId } });
  }, [recordingId, router]);
  if (!item || !passages) {
    return (
      <Page>
        <Back home="/tray">Tray</Back>
        {passages ? (
          <Empty title="Not on this device any more">It has been sent. You find it in the tray.</Empty>
        ) : (
          <Loading />
        )}
      </Page>
    );
  }
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 8, paddingBottom: 40, maxWidth: READING_WIDTH, gap: 10 }}>
        <Back home="/tray" size="tiny">
          Tray
        </Back>
        <Title>{spokenName(item.startedAt)}</Title>
        <Type size="tiny" tone="faint" role="status">
          {[item.durationMs ? lengthName(item.durationMs) : null, 'words from this device', 'saved here, not sent yet']
            .filter(Boolean)
            .join(' · ')}
        </Type>
        {sound.address && (
          <audio
            ref={sound.player}
            controls
            src={sound.address}
            style={{ width: '100%' }}
            aria-label="Audio of this recording"
          />
        )}
        {passages.length === 0 && (
          <Empty title="No words yet">This device heard no words. The server transcribes the recording later.</Empty>
        )}
        {passages.map((passage) => (
          <PassageHere
            key={passage.startMs}
            passage={passage}
            slips={slips.filter((s) => s.startMs >= passage.startMs && s.startMs <= passage.endMs)}
            isEdited={edited === passage.startMs}
            onEdit={(isOn) => setEdited(isOn ? passage.startMs : null)}
            onPlay={sound.playFrom}
            {...changes}
          />
        ))}
      </ScrollView>
    </Page>
  );
}

/** The sound as it lies on this device. */
function useSoundHere(captureId: string) {
  const { store } = useDevice();
  const [address, setAddress] = useState<string | null>(null);
  const player = useRef<HTMLAudioElement>(null);
  useEffect(() => {
    let made: string | null = null;
    let isGone = false;
    void store.soundOf(captureId).then((sound) => {
      if (sound && !isGone) setAddress((made = URL.createObjectURL(sound)));
    });
    return () => {
      isGone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [store, captureId]);
  const playFrom = (ms: number) => {
    if (!player.current) return;
    player.current.currentTime = ms / 1000;
    void player.current.play().catch(() => undefined);
  };
  return { address, player, playFrom };
}

type PassageHereProps = Pick<ReturnType<typeof useCaptureText>, 'rewrite' | 'mark' | 'unmark'> & {
  passage: Passage;
  slips: readonly NewSlip[];
  isEdited: boolean;
  onEdit: (isOn: boolean) => void;
  onPlay: (ms: number) => void;
};

function PassageHere({ passage, slips, isEdited, onEdit, onPlay, rewrite, mark, unmark }: PassageHereProps) {
  const text = passageText(passage);
  const [typed, setTyped] = useState(text);
  const { offered, labelOf } = useMarkNames();
  const save = async () => {
    if (typed.trim() !== text) await rewrite(passage, typed);
    onEdit(false);
  };
  if (isEdited) {
    return (
      <View style={{ gap: 6 }}>
        <Field
          label={`Words at ${clockTime(passage.startMs)}`}
          value={typed}
          onChangeText={setTyped}
          multiline
          autoFocus
        />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton label="Save" isBold onPress={() => void save()} />
          <WordButton label="Cancel" onPress={() => onEdit(false)} />
        </View>
        <View role="group" aria-label="Mark this passage" style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {offered.map(({ id, label }) => (
            <Press
              key={id}
              label={`Mark: ${label}`}
              onPress={() => void mark(passage, id)}
              style={{ flexDirection: 'row', alignItems: 'center', gap: 6, marginRight: 14 }}
            >
              <MarkShape kind={id} size={16} />
              <Type size="tiny">{label}</Type>
            </Press>
          ))}
        </View>
      </View>
    );
  }
  return (
    <View>
      <Press label={`Play from ${clockTime(passage.startMs)}: ${text}`} onPress={() => onPlay(passage.startMs)}>
        <Type size="body" face="text">
          {text}
        </Type>
      </Press>
      {slips.map((slip) => (
        <View key={slip.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingLeft: 20 }}>
          {slip.mark && <MarkShape kind={slip.mark} size={16} />}
          <Type size="tiny" style={{ flex: 1 }}>
            {slip.text || (slip.mark ? labelOf(slip.mark) : slip.kind)}
          </Type>
          <WordButton label="Remove" onPress={() => void unmark(slip.id)} style={{ marginRight: 0 }} />
        </View>
      ))}
      <WordButton
        label="Edit or mark"
        onPress={() => {
          setTyped(text);
          onEdit(true);
        }}
      />
    </View>
  );
}

function useMarkNames() {
  const { offered } = useMarkKinds();
  const labelOf = (id: string): string => offered.find((kind) => kind.id === id)?.label ?? 'Mark';
  return { offered, labelOf };
}
