import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { type OutboxItem, useDevice, useOutbox } from '../../offline/deviceContext';
import { lengthName, sizeName, spokenName, whenSaid } from '../../ui/dates';
import { useCaptureWords } from '../here/useCaptureText';
import { Press, WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { useColours } from '../../ui/theme';
import { saveFile } from '../../ui/saveFile';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

const WORDS_SHOWN = 60;

const shareOf = ({ sentBytes, sizeBytes }: OutboxItem): number => (sizeBytes ? Math.min(1, sentBytes / sizeBytes) : 0);

function wordsFor(item: OutboxItem): string {
  const came = item.isRecovered ? 'The recording was interrupted and recovered. ' : '';
  if (item.state === 'sending') return `${came}${Math.floor(shareOf(item) * 100)}% of ${sizeName(item.sizeBytes)} sent`;
  if (item.state === 'refused') return `Not sent: ${item.problem} The file stays on this device.`;
  if (item.state === 'sent') {
    return item.hereSince ? `Already imported: ${whenSaid(item.hereSince)}. It was not stored twice.` : 'Imported.';
  }
  if (!item.problem) return `${came}Waiting to be sent. Saved on this device.`;
  return item.isOnlyInPage
    ? `${item.problem} Immeld tries again automatically. This file is too large to copy to this device, so keep the page open.`
    : `${came}${item.problem} It is saved on this device. Immeld tries again automatically, even when this page is closed.`;
}

/** A sound that is on this device and on its way to the server. */
export function OutboxRow({ item }: { item: OutboxItem }) {
  const colours = useColours();
  const router = useRouter();
  const { store } = useDevice();
  const { retry, dismiss } = useOutbox();
  const show = useUndoBar();
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => () => (address ? URL.revokeObjectURL(address) : undefined), [address]);
  const listen = async () => {
    const sound = await store.soundOf(item.id);
    if (sound) setAddress(URL.createObjectURL(sound));
    else show('The audio has just been sent to the server.');
  };
  const isHere = item.state !== 'sent';
  const words = useCaptureWords(item.id);
  const text = (words ?? [])
    .slice(0, WORDS_SHOWN)
    .map((w) => w.text)
    .join(' ');
  const read = () => router.push({ pathname: '/here/[id]', params: { id: item.id } });
  return (
    <View
      style={{ paddingVertical: 10, borderTopWidth: 1, borderTopColor: colours.rule, gap: 4 }}
      role={item.state === 'refused' ? 'alert' : 'status'}
      aria-label={item.name}
    >
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Type numberOfLines={1} style={{ flex: 1 }}>
          {item.source === 'speak' ? spokenName(item.startedAt) : item.name}
        </Type>
        {item.durationMs ? (
          <Type size="tiny" tone="faint">
            {lengthName(item.durationMs)}
          </Type>
        ) : null}
      </View>
      {text !== '' && (
        <Press label={`Read ${spokenName(item.startedAt)}`} role="link" onPress={read}>
          <Type size="body" face="text" numberOfLines={3}>
            “{text}”
          </Type>
        </Press>
      )}
      {isHere && item.state !== 'refused' && <Progress label={`Sending ${item.name}`} share={shareOf(item)} />}
      <Type size="tiny" tone={item.state === 'refused' ? 'rowan' : 'faint'}>
        {wordsFor(item)}
      </Type>
      {address && (
        <audio controls autoPlay src={address} style={{ width: '100%' }} aria-label={`Audio of ${item.name}`} />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {item.state === 'refused' && <WordButton label="Try again" onPress={() => void retry(item.id)} />}
        {isHere && item.source === 'speak' && <WordButton label="Read" onPress={read} />}
        {isHere && !address && <WordButton label="Play" onPress={() => void listen()} />}
        {item.recordingId && (
          <WordButton
            label="Open"
            onPress={() => router.push({ pathname: '/recordings/[id]', params: { id: item.recordingId! } })}
          />
        )}
        {item.state === 'sent' && <WordButton label="Close" onPress={() => void dismiss(item.id)} />}
        {item.state === 'refused' && <SaveOrRemove item={item} />}
      </View>
    </View>
  );
}

/** What the server refuses can be saved as a file; only then is it offered to take it off the device. */
function SaveOrRemove({ item }: { item: OutboxItem }) {
  const { store } = useDevice();
  const { dismiss } = useOutbox();
  const [isSaved, setSaved] = useState(item.source === 'import');
  const save = async () => {
    const sound = await store.soundOf(item.id);
    if (sound) saveFile(sound, item.name);
    setSaved(true);
  };
  return isSaved ? (
    <WordButton label="Remove from list" onPress={() => void dismiss(item.id)} />
  ) : (
    <WordButton label="Save as file" onPress={() => void save()} />
  );
}
