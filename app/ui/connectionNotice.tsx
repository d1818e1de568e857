import { useEffect, useRef } from 'react';
import { View } from 'react-native';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/call';
import { useColours } from './theme';
import { Type } from './type';

const ASK_EVERY_MS = 10_000;
/** While it does not answer it is asked more often, so that nobody reads of trouble that is over. */
const ASK_AGAIN_MS = 2000;

/**
 * Says when the server does not answer, and what is safe meanwhile.
 * @param onBack called when it answers again
 */
export function ConnectionNotice({ onBack }: { onBack: () => void }) {
  const colours = useColours();
  const { isError, failureCount } = useQuery({
    queryKey: ['connection'],
    queryFn: () => call('status'),
    refetchInterval: ({ state }) => (state.fetchFailureCount > 0 ? ASK_AGAIN_MS : ASK_EVERY_MS),
    retry: false,
  });
  const isAway = isError || failureCount > 0;
  const wasAway = useRef(false);
  const latest = useRef(onBack);
  latest.current = onBack;
  useEffect(() => {
    if (wasAway.current && !isAway) latest.current();
    wasAway.current = isAway;
  }, [isAway]);
  if (!isAway) return null;
  return (
    <View
      role="status"
      style={{
        backgroundColor: colours.sheet,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        paddingHorizontal: 16,
        paddingVertical: 8,
      }}
    >
      <Type size="tiny">
        Immeld’s server cannot be reached. You see the last version this device loaded. Keep recording and writing
        notes: everything is saved here and sent when the server is back.
      </Type>
    </View>
  );
}
