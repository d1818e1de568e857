import { View } from 'react-native';
import { useDevice, useLiveText, usePackState } from '../../offline/deviceContext';
import { sentSizeOf } from '../../offline/packs';
import { changeSettings } from '../../settings/settings';
import { sizeName } from '../../ui/dates';
import { WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { Type } from '../../ui/type';

/** Why there are no words yet, and what can be done about it. The sound is being kept all the while. */
export function PackNotice() {
  const { packs } = useDevice();
  const pack = usePackState();
  const live = useLiveText();
  if (live.state === 'on') return null;
  const size = packs.pack ? sizeName(sentSizeOf(packs.pack)) : '';
  const stop = () => {
    changeSettings({ fetchesPack: false });
    packs.stop();
  };
  return (
    <View style={{ gap: 6, paddingVertical: 8 }} role="status">
      {live.state === 'loading' && <Type tone="faint">The words are being made ready. The sound is kept already.</Type>}
      {live.state === 'failed' && (
        <Type tone="faint">{live.problem} The sound is kept; the server makes the words.</Type>
      )}
      {live.state === 'off' && pack.state === 'fetching' && (
        <>
          <Type tone="faint">
            Fetching the words for this device, {size}, once: {Math.floor(pack.share * 100)} %. The sound is kept
            already.
          </Type>
          <Progress label="Fetching the words" share={pack.share} />
          <WordButton label="Not now" onPress={stop} />
        </>
      )}
      {live.state === 'off' && pack.state === 'absent' && (
        <>
          <Type tone="faint">
            Words can appear while you speak, without a network, once this device has fetched them ({size}).
          </Type>
          <WordButton label={`Fetch the words, ${size}`} onPress={() => void packs.fetch()} />
        </>
      )}
      {live.state === 'off' && pack.state === 'failed' && (
        <>
          <Type tone="faint">{pack.problem}</Type>
          <WordButton label="Fetch again" onPress={() => void packs.fetch()} />
        </>
      )}
      {live.state === 'off' && pack.state === 'unknown' && (
        <Type tone="faint">No words while you speak: they are not on this device, and the server does not answer.</Type>
      )}
    </View>
  );
}
