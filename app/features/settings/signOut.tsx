import { useState } from 'react';
import { View } from 'react-native';
import { sendDrafts, unsentNotes } from '../../offline/noteDrafts';
import { useDevice } from '../../offline/deviceContext';
import { sendTodos, unsentTodos } from '../../offline/todosToSend';
import { Loading } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';

/** Signs this device out when what was made on it has reached the account, or when that is not to be waited for. */
export function SignOut({ onSignOut }: { onSignOut: () => void }) {
  const { store, outbox } = useDevice();
  const [isSending, setSending] = useState(false);
  const [left, setLeft] = useState(0);
  const sendAndLeave = async () => {
    setSending(true);
    await Promise.allSettled([sendTodos(), sendDrafts(), outbox.wake()]);
    const sounds = (await store.list()).filter(({ state }) => state !== 'sent');
    const count = sounds.length + unsentTodos() + unsentNotes();
    setSending(false);
    setLeft(count);
    if (count === 0) onSignOut();
  };
  if (!isSending && left === 0) {
    return <WordButton label="Sign out" onPress={() => void sendAndLeave()} />;
  }
  return (
    <View>
      {isSending ? (
        <Loading label="Sending what is only on this device" />
      ) : (
        <Type role="alert">
          {left === 1 ? 'One item' : `${left} items`} from this device {left === 1 ? 'has' : 'have'} not reached your
          account yet. If you sign out now, {left === 1 ? 'it goes' : 'they go'} to whoever uses this device next.
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {!isSending && <WordButton label="Try again" isBold onPress={() => void sendAndLeave()} />}
        {!isSending && <WordButton label="Stay signed in" onPress={() => setLeft(0)} />}
        <WordButton label="Sign out anyway" onPress={onSignOut} />
      </View>
    </View>
  );
}
