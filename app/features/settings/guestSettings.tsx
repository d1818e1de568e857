import { useState } from 'react';
import { View } from 'react-native';
import type { Changes } from '../../api/changes';
import { useMail } from '../../api/mail';
import { Field } from '../../ui/field';
import { FrameButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { ForgottenPassword } from './forgottenPassword';
import { SignUpCode } from './signUpCode';

/** What a guest can do: sign up and keep everything, sign in, or ask for a new password. */
export function GuestSettings({ isShared, changes }: { isShared: boolean; changes: Changes }) {
  const { askToSignUp, signUp, signIn } = changes;
  const { data: mail } = useMail();
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const isEmpty = email.trim() === '' || password === '';
  const isBusy = askToSignUp.isPending || signUp.isPending || signIn.isPending;
  const askOrSignUp = () =>
    askToSignUp.mutate(email.trim(), {
      onSuccess: ({ isAsked }) => {
        if (!isAsked) signUp.mutate({ email, password });
      },
    });
  return (
    <>
      <Type tone="faint">
        {isShared
          ? 'This is the demo. Everyone who opens it shares Tamsin’s recordings. A new account starts empty.'
          : 'You are a guest on this device. Sign up with an email address and password to use your recordings on other devices. Everything you have stays.'}
      </Type>
      <Field
        label="Email address"
        value={email}
        onChangeText={setEmail}
        inputMode="email"
        autoComplete="email"
        autoCapitalize="none"
        maxLength={254}
      />
      <Field
        label="Password, at least 10 characters"
        value={password}
        onChangeText={setPassword}
        secureTextEntry
        autoComplete="current-password"
        autoCapitalize="none"
        maxLength={200}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <FrameButton label="Sign up" isMain disabled={isEmpty || isBusy} onPress={askOrSignUp} />
        <FrameButton label="Sign in" disabled={isEmpty || isBusy} onPress={() => signIn.mutate({ email, password })} />
      </View>
      {askToSignUp.data?.isAsked && <SignUpCode {...{ email, password, changes }} />}
      {isEmpty && (
        <Type size="tiny" tone="faint">
          Enter an email address and a password to sign up or sign in.
        </Type>
      )}
      {mail?.isPossible && !mail.isStandIn && <ForgottenPassword email={email} changes={changes} />}
    </>
  );
}
