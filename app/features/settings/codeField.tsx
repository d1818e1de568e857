import { Field } from '../../ui/field';

/** Where the code from an email is typed. */
export const CodeField = (typed: { value: string; onChangeText: (code: string) => void }) => (
  <Field
    label="Code from the email"
    autoComplete="one-time-code"
    autoCapitalize="characters"
    maxLength={20}
    {...typed}
  />
);
