import { TextInput, type TextInputProps } from 'react-native-paper';
import { TOUCH } from './theme';

/** A text field with its label; Paper draws the label but does not tie it to the field. */
export function Field({ label, style, ...rest }: Omit<TextInputProps, 'label'> & { label: string }) {
  const height = rest.multiline ? {} : { height: TOUCH };
  return <TextInput mode="outlined" dense {...rest} label={label} aria-label={label} style={[height, style]} />;
}
