import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { type SourceChoice, screenObstacle } from '../../capture/sources';
import { useCapture } from '../../offline/deviceContext';
import { changeSettings, useSettings } from '../../settings/settings';
import { Choice } from '../../ui/choice';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';

/** Where the sound comes from: a microphone, the sound of a tab or screen, or both mixed. */
export function SourceSettings() {
  const { source } = useSettings();
  const devices = useMicrophones();
  const obstacle = screenObstacle();
  const change = (part: Partial<SourceChoice>) => changeSettings({ source: { ...source, ...part } });
  const isMixed = source.microphone && source.screen;
  return (
    <View style={{ gap: 2 }}>
      <Title level={2}>Record from</Title>
      <View role="radiogroup" aria-label="Record from">
        <Choice
          label="Microphone"
          isOn={source.microphone && !source.screen}
          onPress={() => change({ microphone: true, screen: false })}
        />
        {!obstacle && (
          <>
            <Choice
              label="A tab or the screen"
              hint="The browser asks which one when you press Speak"
              isOn={source.screen && !source.microphone}
              onPress={() => change({ microphone: false, screen: true })}
            />
            <Choice
              label="Both together"
              hint="A call or a lecture on this computer, and your own voice"
              isOn={isMixed}
              onPress={() => change({ microphone: true, screen: true })}
            />
          </>
        )}
      </View>
      {obstacle && <Type tone="faint">{obstacle}</Type>}
      {source.microphone && devices.length > 1 && (
        <View role="radiogroup" aria-label="Microphone">
          <Type isBold style={{ paddingTop: 10 }}>
            Microphone
          </Type>
          <Choice label="System default" isOn={!source.deviceId} onPress={() => change({ deviceId: null })} />
          {devices.map(({ deviceId, label }) => (
            <Choice
              key={deviceId}
              label={label}
              isOn={source.deviceId === deviceId}
              onPress={() => change({ deviceId })}
            />
          ))}
        </View>
      )}
      <MixLevels />
    </View>
  );
}

/** The two levels of a mix; moved while it is being recorded, they are heard at once. */
export function MixLevels() {
  const { source } = useSettings();
  const engine = useCapture();
  if (!source.microphone || !source.screen) return null;
  const change = (part: Partial<SourceChoice>) => {
    const next = { ...source, ...part };
    changeSettings({ source: next });
    engine.setGains(next.microphoneGain, next.screenGain);
  };
  return (
    <View>
      <Level
        label="Microphone level"
        value={source.microphoneGain}
        onChange={(microphoneGain) => change({ microphoneGain })}
      />
      <Level label="Tab or screen level" value={source.screenGain} onChange={(screenGain) => change({ screenGain })} />
    </View>
  );
}

/** The microphones by name; browsers tell the names only after one was allowed once. */
function useMicrophones(): { deviceId: string; label: string }[] {
  const [devices, setDevices] = useState<{ deviceId: string; label: string }[]>([]);
  useEffect(() => {
    const media = navigator.mediaDevices as MediaDevices | undefined;
    if (!media?.enumerateDevices) return;
    const look = () =>
      void media
        .enumerateDevices()
        .then((all) =>
          setDevices(
            all
              .filter((d) => d.kind === 'audioinput' && d.deviceId && d.deviceId !== 'default' && d.label)
              .map(({ deviceId, label }) => ({ deviceId, label })),
          ),
        )
        .catch(() => undefined);
    look();
    media.addEventListener('devicechange', look);
    return () => media.removeEventListener('devicechange', look);
  }, []);
  return devices;
}

const STEP = 0.1;

/** A level from silent to twice as loud, with keys big enough for a thumb. */
function Level({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  const colours = useColours();
  const set = (next: number) => onChange(Math.round(Math.min(2, Math.max(0, next)) * 10) / 10);
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }} role="group" aria-label={label}>
      <Type style={{ flex: 1 }}>{label}</Type>
      <Press label={`${label}: lower`} onPress={() => set(value - STEP)} style={{ alignItems: 'center' }}>
        <Type size="large">−</Type>
      </Press>
      <Type
        style={{ width: 52, textAlign: 'center', borderBottomWidth: 1, borderBottomColor: colours.rule }}
        role="status"
      >
        {Math.round(value * 100)}%
      </Type>
      <Press label={`${label}: higher`} onPress={() => set(value + STEP)} style={{ alignItems: 'center' }}>
        <Type size="large">+</Type>
      </Press>
    </View>
  );
}
