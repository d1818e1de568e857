import { useState } from 'react';
import { View } from 'react-native';
import type { Changes } from '../../api/changes';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { FrameButton, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** A new password for the account. It signs all other devices out, as somebody may have known the old one. */
export function ChangePassword({ changes }: { changes: Changes }) {
  const { changePassword } = changes;
  const [isOpen, setIsOpen] = useClosable(false);
  const [password, setPassword] = useState('');
  const [newPassword, setNewPassword] = useState('');
  const close = () => {
    setIsOpen(false);
    setPassword('');
    setNewPassword('');
  };
  if (!isOpen) {
    return (
      <>
        <WordButton label="Change password" onPress={() => setIsOpen(true)} />
        {changePassword.isSuccess && <Type role="status">Password changed. Your other devices are signed out.</Type>}
      </>
    );
  }
  const secret = { secureTextEntry: true, autoCapitalize: 'none', maxLength: 200 } as const;
  return (
    <View style={{ gap: 8 }}>
      {changePassword.error && <Failure error={changePassword.error} />}
      <Field
        label="Current password"
        value={password}
        onChangeText={setPassword}
        autoComplete="current-password"
        {...secret}
      />
      <Field
        label="New password, at least 10 characters"
        value={newPassword}
        onChangeText={setNewPassword}
        autoComplete="new-password"
        {...secret}
      />
      <Type size="tiny" tone="faint">
        This signs out all your other devices.
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <FrameButton
          label="Save"
          isMain
          disabled={password === '' || newPassword === '' || changePassword.isPending}
          onPress={() => changePassword.mutate({ password, newPassword }, { onSuccess: close })}
        />
        <WordButton label="Cancel" onPress={close} />
      </View>
    </View>
  );
}
