import { DELETE_WORD, type Account, type Removed } from '@immeld/core/contract/account';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { call } from '../../api/call';
import { useDevice } from '../../offline/deviceContext';
import { clearResponses } from '../../offline/responseCache';
import { clearStored } from '../../settings/stored';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { FrameButton, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

/** Deletes the account with everything in it; what was deleted is told when it is done. */
export function DeleteAccount({ account, onDeleted }: { account: Account; onDeleted: (removed: Removed) => void }) {
  const client = useQueryClient();
  const { store } = useDevice();
  const [isOpen, setOpen] = useClosable(false);
  const [typed, setTyped] = useState('');
  const isGuest = account.email === null;
  const remove = useMutation({
    mutationFn: () => call('removeAccount', { body: isGuest ? { word: typed.trim() } : { password: typed } }),
    onSuccess: async (removed) => {
      // Else what waits on this device would begin a new account by itself.
      await store.forgetAll();
      await clearResponses();
      clearStored();
      onDeleted(removed);
      await client.resetQueries();
    },
  });
  if (!isOpen) return <WordButton label="Delete everything" onPress={() => setOpen(true)} />;
  return (
    <PencilBox isInk style={{ gap: 8 }}>
      <Type isBold>Delete everything permanently?</Type>
      <Type>
        This deletes all your recordings, notes, to-dos and share links, on the server and on this device. Only a backup
        can bring them back. Create one first under “Backup” below.
      </Type>
      <Field
        label={isGuest ? `Type ${DELETE_WORD} to confirm` : 'Your password'}
        value={typed}
        onChangeText={setTyped}
        secureTextEntry={!isGuest}
        autoComplete={isGuest ? 'off' : 'current-password'}
        autoCapitalize="none"
        maxLength={200}
      />
      {remove.error && <Failure error={remove.error} />}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
        <FrameButton
          label="Delete everything permanently"
          disabled={typed === '' || remove.isPending}
          onPress={() => remove.mutate()}
        />
        <WordButton label="Cancel" onPress={() => setOpen(false)} />
      </View>
    </PencilBox>
  );
}
