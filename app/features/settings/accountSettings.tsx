import type { Removed } from '@immeld/core/contract/account';
import { useState } from 'react';
import { View } from 'react-native';
import { type Changes, useChanges } from '../../api/changes';
import { useAccount, useSessions } from '../../api/queries';
import { whenSaid } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { removedMessage } from './backupMessages';
import { ChangePassword } from './changePassword';
import { DeleteAccount } from './deleteAccount';
import { GuestSettings } from './guestSettings';
import { SignOut } from './signOut';

/** Whose recordings these are: a guest, who can sign up and keeps everything, or an account with its devices. */
export function AccountSettings() {
  const { data: account } = useAccount();
  const changes = useChanges();
  const { askToSignUp, signUp, signIn, signOut, endSession, endOtherSessions } = changes;
  const [removed, setRemoved] = useState<Removed | null>(null);
  const error =
    askToSignUp.error ?? signUp.error ?? signIn.error ?? signOut.error ?? endSession.error ?? endOtherSessions.error;
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Account</Title>
      {error && <Failure error={error} />}
      {!account && <Type tone="faint">Your account appears here when the server can be reached.</Type>}
      {account && !account.email && <GuestSettings isShared={account.isShared} changes={changes} />}
      {account?.email && (
        <>
          <Type>{account.email}</Type>
          <Devices changes={changes} />
          <ChangePassword changes={changes} />
          <SignOut onSignOut={() => signOut.mutate()} />
        </>
      )}
      {account && !account.isShared && <DeleteAccount key={account.id} account={account} onDeleted={setRemoved} />}
      {removed && <Type role="status">{removedMessage(removed)}</Type>}
    </View>
  );
}

function Devices({ changes }: { changes: Changes }) {
  const { data } = useSessions(true);
  const { endSession, endOtherSessions } = changes;
  return (
    <View>
      {data?.items.map((session) => (
        <View key={session.id} role="article" aria-label={session.device}>
          <Type>
            {session.device}
            {session.isThisOne ? ', this device' : ''}
          </Type>
          <Type size="tiny" tone="faint">
            last used {whenSaid(localOf(session.lastSeenAt))}
          </Type>
          {!session.isThisOne && (
            <WordButton label="Sign out this device" onPress={() => endSession.mutate(session.id)} />
          )}
        </View>
      ))}
      {(data?.items.length ?? 0) > 1 && (
        <WordButton label="Sign out all other devices" onPress={() => endOtherSessions.mutate()} />
      )}
    </View>
  );
}

/** An instant as local time of this device, `2026-03-09T07:40:12`. */
function localOf(instant: string): string {
  const date = new Date(instant);
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
}
