import { useState } from 'react';
import { View } from 'react-native';
import type { Changes } from '../../api/changes';
import { Field } from '../../ui/field';
import { CodeField } from './codeField';
import { Failure } from '../../ui/notice';
import { FrameButton, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';

/** A way back for who has forgotten the password: a code by mail, and with it a new password. */
export function ForgottenPassword({ email, changes }: { email: string; changes: Changes }) {
  const { forgotPassword, setForgottenPassword } = changes;
  const [code, setCode] = useState('');
  const [newPassword, setNewPassword] = useState('');
  const typed = email.trim();
  const ask = () => forgotPassword.mutate(typed);
  if (!forgotPassword.isSuccess) {
    return (
      <>
        {forgotPassword.error && <Failure error={forgotPassword.error} />}
        <WordButton label="Forgot your password?" disabled={typed === '' || forgotPassword.isPending} onPress={ask} />
        {typed === '' && (
          <Type size="tiny" tone="faint">
            If you forgot your password, enter your email address first.
          </Type>
        )}
      </>
    );
  }
  const secret = { autoCapitalize: 'none', maxLength: 200 } as const;
  return (
    <View style={{ gap: 8 }}>
      <Type role="status">If {typed} has an account here, a code is on its way to it. It works for 20 minutes.</Type>
      {setForgottenPassword.error && <Failure error={setForgottenPassword.error} />}
      <CodeField value={code} onChangeText={setCode} />
      <Field
        label="New password, at least 10 characters"
        value={newPassword}
        onChangeText={setNewPassword}
        secureTextEntry
        autoComplete="new-password"
        {...secret}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <FrameButton
          label="Save and sign in"
          isMain
          disabled={code.trim() === '' || newPassword === '' || setForgottenPassword.isPending}
          onPress={() => setForgottenPassword.mutate({ email: typed, code, newPassword })}
        />
        <WordButton label="Send another code" disabled={forgotPassword.isPending} onPress={ask} />
        <WordButton label="Cancel" onPress={() => forgotPassword.reset()} />
      </View>
    </View>
  );
}
