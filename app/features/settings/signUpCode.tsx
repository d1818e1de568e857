import { useState } from 'react';
import { View } from 'react-native';
import type { Changes } from '../../api/changes';
import { CodeField } from './codeField';
import { FrameButton, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';

/** The last step of signing up where the server sends emails: the code proves that the address is the person's own. */
export function SignUpCode({ email, password, changes }: { email: string; password: string; changes: Changes }) {
  const { askToSignUp, signUp } = changes;
  const [code, setCode] = useState('');
  const sentTo = askToSignUp.variables ?? '';
  const isSame = email.trim() === sentTo;
  return (
    <View style={{ gap: 8 }}>
      <Type role="status">We sent an email to {sentTo}. The code in it works for 20 minutes.</Type>
      <CodeField value={code} onChangeText={setCode} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <FrameButton
          label="Finish signing up"
          isMain
          disabled={code.trim() === '' || password === '' || !isSame || signUp.isPending}
          onPress={() => signUp.mutate({ email, password, code })}
        />
        <WordButton label="Cancel" onPress={() => askToSignUp.reset()} />
      </View>
      {!isSame && (
        <Type size="tiny" tone="faint">
          You changed the email address. Press “Sign up” to get a code for the new one.
        </Type>
      )}
    </View>
  );
}
