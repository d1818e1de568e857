import { View } from 'react-native';
import { changeSettings, useSettings } from '../../settings/settings';
import { Choice } from '../../ui/choice';
import { Title, Type } from '../../ui/type';

/** Whether a card reminds of consent when a recording begins. */
export function ConsentSettings() {
  const { asksConsent } = useSettings();
  return (
    <View style={{ gap: 4 }}>
      <Title level={2}>Recording other people</Title>
      <Type tone="faint">
        In many places people must know or agree that they are being recorded. Their answer is saved with the recording.
      </Type>
      <Choice
        role="switch"
        label="Ask about consent when a recording starts"
        isOn={asksConsent}
        onPress={() => changeSettings({ asksConsent: !asksConsent })}
      />
    </View>
  );
}
