import { TextInput, type TextInputProps } from 'react-native-paper';

/** A text field with its label; Paper draws the label but does not tie it to the field. */
export function Field({ label, ...rest }: Omit<TextInputProps, 'label'> & { label: string }) {
  return <TextInput mode="outlined" dense {...rest} label={label} aria-label={label} />;
}
