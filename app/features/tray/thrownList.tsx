import { View } from 'react-native';
import { useOutbox } from '../../offline/deviceContext';
import { lengthName, spokenName } from '../../ui/dates';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** What was thrown away on this device in the last thirty days, to be had back. It was never sent. */
export function ThrownList() {
  const colours = useColours();
  const { thrown, retry, dismiss } = useOutbox();
  const [isOpen, setOpen] = useClosable(false);
  if (thrown.length === 0) return null;
  return (
    <View>
      <WordButton
        label={`Recently thrown away · ${thrown.length}`}
        aria-expanded={isOpen}
        onPress={() => setOpen((was) => !was)}
      />
      {isOpen &&
        thrown.map(({ id, startedAt, durationMs }) => (
          <View key={id} style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: 8 }}>
            <Type>
              {spokenName(startedAt)}
              {durationMs ? ` · ${lengthName(durationMs)}` : ''}
            </Type>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
              <WordButton label="Restore" onPress={() => void retry(id)} />
              <WordButton label="Delete for good" tone="rowan" onPress={() => void dismiss(id)} />
            </View>
          </View>
        ))}
    </View>
  );
}
