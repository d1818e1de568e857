import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { type UploadItem, useUploads } from '../../capture/uploads';
import { sizeName, whenSaid } from '../../ui/dates';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

/** A sound on its way to the server. */
export function UploadRow({ item }: { item: UploadItem }) {
  const colours = useColours();
  const router = useRouter();
  const { retry, dismiss } = useUploads();
  const share = item.bytes ? item.sent / item.bytes : 0;
  const open = item.recordingId
    ? () => router.push({ pathname: '/recordings/[id]', params: { id: item.recordingId! } })
    : null;
  const words = {
    sending: `${Math.floor(share * 100)} % of ${sizeName(item.bytes)} brought in`,
    retrying: item.problem,
    failed: item.problem,
    done: 'Brought in.',
    'already-here': `The same sound is already here since ${item.hereSince ? whenSaid(item.hereSince) : 'before'}. It was not stored twice.`,
  }[item.state];
  return (
    <View
      style={{ paddingVertical: 10, borderTopWidth: 1, borderTopColor: colours.rule, gap: 4 }}
      role={item.state === 'failed' ? 'alert' : 'status'}
    >
      <Type numberOfLines={1}>{item.name}</Type>
      {(item.state === 'sending' || item.state === 'retrying') && (
        <ProgressBar
          aria-label={`Bringing in ${item.name}`}
          progress={share}
          color={colours.petrol}
          style={{ backgroundColor: colours.rule, height: 4 }}
        />
      )}
      <Type size="tiny" tone={item.state === 'failed' ? 'rowan' : 'faint'}>
        {words}
      </Type>
      {(item.state === 'failed' || item.state === 'already-here') && (
        <View style={{ flexDirection: 'row' }}>
          {item.state === 'failed' && <WordButton label="Try again" onPress={() => retry(item.id)} />}
          {open && <WordButton label="Open it" onPress={open} />}
          <WordButton label="Close" onPress={() => dismiss(item.id)} />
        </View>
      )}
    </View>
  );
}
