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
      <Title level={2}>Words on this device</Title>
      <Type tone="faint">
        With this pack words appear while you speak, without a network, and nothing leaves the device.
      </Type>
      {pack && (
        <Type>
          {pack.title} · {sizeName(sizeOf(pack))} on this device, {sizeName(sentSizeOf(pack))} to fetch · licence{' '}
          {pack.licence}
        </Type>
      )}
      {state.state === 'present' && <WordButton label="Remove it from this device" onPress={() => void remove()} />}
      {state.state === 'absent' && <WordButton label="Fetch it" isBold onPress={() => void packs.fetch()} />}
      {state.state === 'fetching' && (
        <>
          <Type role="status">{Math.floor(state.share * 100)} % is here</Type>
          <WordButton label="Stop" onPress={() => packs.stop()} />
        </>
      )}
      {state.state === 'failed' && (
        <>
          <Type tone="rowan" role="alert">
            {state.problem}
          </Type>
          <WordButton label="Fetch it again" onPress={() => void packs.fetch()} />
        </>
      )}
      {state.state === 'unknown' && <Type tone="faint">It cannot be seen now: the server does not answer.</Type>}
      <Choice
        role="switch"
        label="Fetch it by itself at the first recording"
        hint="Never over a line that is paid by volume"
        isOn={fetchesPack}
        onPress={() => changeSettings({ fetchesPack: !fetchesPack })}
      />
    </View>
  );
}
