import { View } from 'react-native';
import { Field } from './field';
import { WordButton } from './press';

type LineEntryProps = {
  label: string;
  /** The verb beside the field. */
  action: string;
  value: string;
  onChange: (text: string) => void;
  /** Called by the verb and by Enter, only when something is written. */
  onSubmit: () => void;
  maxLength: number;
  autoFocus?: boolean;
};

/** One line to write and a verb beside it. */
export function LineEntry({ label, action, value, onChange, onSubmit, maxLength, autoFocus = false }: LineEntryProps) {
  const isEmpty = value.trim() === '';
  const submit = () => {
    if (!isEmpty) onSubmit();
  };
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <Field
        label={label}
        value={value}
        onChangeText={onChange}
        onSubmitEditing={submit}
        maxLength={maxLength}
        autoFocus={autoFocus}
        style={{ flex: 1 }}
      />
      <WordButton label={action} isBold disabled={isEmpty} onPress={submit} style={{ marginRight: 0 }} />
    </View>
  );
}
