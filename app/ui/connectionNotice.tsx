import { View } from 'react-native';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/call';
import { useColours } from './theme';
import { Type } from './type';

const ASK_EVERY_MS = 10_000;
/** While it does not answer it is asked more often, so that nobody reads of trouble that is over. */
const ASK_AGAIN_MS = 2000;

/** Says when the server does not answer, and what is safe meanwhile. */
export function ConnectionNotice() {
  const colours = useColours();
  const { isError, failureCount } = useQuery({
    queryKey: ['connection'],
    queryFn: () => call('status'),
    refetchInterval: ({ state }) => (state.fetchFailureCount > 0 ? ASK_AGAIN_MS : ASK_EVERY_MS),
    retry: false,
  });
  if (!isError && failureCount === 0) return null;
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
        No answer from Immeld’s server. You can go on recording: everything is kept on this device and sent by itself
        when the server is back.
      </Type>
    </View>
  );
}
