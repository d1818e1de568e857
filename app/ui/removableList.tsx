import { View } from 'react-native';
import { WordButton } from './press';
import { Type } from './type';

/** @property key what it is called where its removal is described */
type Entry = { key: string; text: string; detail?: string | null };
type ListProps = { label: string; entries: readonly Entry[]; onRemove: (key: string) => void };

/** What a person has entered, one under the other, each with a way to remove it. Nothing where there is nothing. */
export function RemovableList({ label, entries, onRemove }: ListProps) {
  if (entries.length === 0) return null;
  return (
    <View role="list" aria-label={label}>
      {entries.map(({ key, text, detail }) => (
        <View
          key={key}
          role="listitem"
          style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 12 }}
        >
          <View style={{ flexShrink: 1 }}>
            <Type>{text}</Type>
            {detail && (
              <Type size="tiny" tone="faint">
                {detail}
              </Type>
            )}
          </View>
          <WordButton
            label="Remove"
            aria-label={`Remove ${key}`}
            onPress={() => onRemove(key)}
            style={{ marginRight: 0 }}
          />
        </View>
      ))}
    </View>
  );
}
