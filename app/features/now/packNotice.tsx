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
      {live.state === 'loading' && <Type tone="faint">Preparing live words. The audio is already being saved.</Type>}
      {live.state === 'failed' && (
        <Type tone="faint">{live.problem} The audio is saved; the server transcribes it.</Type>
      )}
      {live.state === 'off' && pack.state === 'fetching' && (
        <>
          <Type tone="faint">
            Downloading the pack for live words ({size}): {Math.floor(pack.share * 100)}%. This happens once. The audio
            is already being saved.
          </Type>
          <Progress label="Download of the pack" share={pack.share} />
          <WordButton label="Cancel" onPress={stop} />
        </>
      )}
      {live.state === 'off' && pack.state === 'absent' && (
        <>
          <Type tone="faint">
            See your words as you speak, even without a network. This device needs to download a pack once ({size}).
          </Type>
          <WordButton label={`Download the pack, ${size}`} onPress={() => void packs.fetch()} />
        </>
      )}
      {live.state === 'off' && pack.state === 'failed' && (
        <>
          <Type tone="faint">{pack.problem}</Type>
          <WordButton label="Download again" onPress={() => void packs.fetch()} />
        </>
      )}
      {live.state === 'off' && pack.state === 'unknown' && (
        <Type tone="faint">
          No live words: this device does not have the pack, and the server cannot be reached. The recording continues.
        </Type>
      )}
    </View>
  );
}
