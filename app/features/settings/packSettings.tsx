import { View } from 'react-native';
import { useDevice, usePackState } from '../../offline/deviceContext';
import { sentSizeOf, sizeOf } from '../../offline/packs';
import { changeSettings, useSettings } from '../../settings/settings';
import { sizeName } from '../../ui/dates';
import { Choice } from '../../ui/choice';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';

/** The packs on this device: size, licence, fetch and remove. */
export function PackSettings() {
  const { packs, live } = useDevice();
  const state = usePackState();
  const { fetchesPack } = useSettings();
  const { pack } = packs;
  const remove = async () => {
    live.unload();
    changeSettings({ fetchesPack: false });
    await packs.remove();
  };
  return (
    <View style={{ gap: 6 }}>
      <Title level={2}>Live words on this device</Title>
      <Type tone="faint">
        With this pack, your words appear as you speak. It works without a network, and nothing leaves this device.
      </Type>
      {pack && (
        <Type>
          {pack.title} · {sizeName(sizeOf(pack))} on this device, {sizeName(sentSizeOf(pack))} to download · licence{' '}
          {pack.licence}
        </Type>
      )}
      {state.state === 'present' && <WordButton label="Remove from this device" onPress={() => void remove()} />}
      {state.state === 'absent' && <WordButton label="Download" isBold onPress={() => void packs.fetch()} />}
      {state.state === 'fetching' && (
        <>
          <Type role="status">{Math.floor(state.share * 100)}% downloaded</Type>
          <WordButton label="Cancel" onPress={() => packs.stop()} />
        </>
      )}
      {state.state === 'failed' && (
        <>
          <Type tone="rowan" role="alert">
            {state.problem}
          </Type>
          <WordButton label="Download again" onPress={() => void packs.fetch()} />
        </>
      )}
      {state.state === 'unknown' && (
        <Type tone="faint">The pack cannot be shown because the server cannot be reached.</Type>
      )}
      <Choice
        role="switch"
        label="Download automatically with the first recording"
        hint="Never over a metered connection"
        isOn={fetchesPack}
        onPress={() => changeSettings({ fetchesPack: !fetchesPack })}
      />
    </View>
  );
}
