import { type ReactNode, useEffect, useState } from 'react';
import { View } from 'react-native';
import { ActivityIndicator } from 'react-native-paper';
import { ApiProblem } from '../api/call';
import { WordButton } from './press';
import { useColours } from './theme';
import { Type } from './type';

/** An empty place: what will be here, and one action. */
export function Empty({ title, children, action }: { title: string; children: string; action?: ReactNode }) {
  return (
    <View style={{ paddingVertical: 36, gap: 8, maxWidth: 460 }}>
      <Type size="body" face="text" isBold>
        {title}
      </Type>
      <Type tone="faint">{children}</Type>
      {action}
    </View>
  );
}

/** What went wrong, what is safe and what to do now. */
export function Failure({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  const colours = useColours();
  const problem = error instanceof ApiProblem ? error : null;
  return (
    <View
      role="alert"
      style={{ borderLeftWidth: 3, borderLeftColor: colours.rowan, paddingLeft: 14, marginVertical: 16, gap: 2 }}
    >
      <Type>{problem?.message ?? 'This page could not be shown because of an error in Immeld.'}</Type>
      <Type size="tiny" tone="faint">
        {problem?.safe ?? 'Your recordings are safe.'}
      </Type>
      {onRetry && <WordButton label="Try again" onPress={onRetry} />}
    </View>
  );
}

/** Long enough that what is quick does not flicker. */
const SLOW_MS = 500;

/** Whether something goes on for so long by now that it has to be said. */
export function useIsSlow(isGoingOn: boolean): boolean {
  const [isSlow, setSlow] = useState(false);
  useEffect(() => {
    if (!isGoingOn) return undefined;
    const timer = setTimeout(() => setSlow(true), SLOW_MS);
    return () => {
      clearTimeout(timer);
      setSlow(false);
    };
  }, [isGoingOn]);
  return isSlow;
}

export function Loading({ label = 'Loading' }: { label?: string }) {
  const colours = useColours();
  return (
    <View
      style={{ paddingVertical: 36, flexDirection: 'row', gap: 12, alignItems: 'center' }}
      role="status"
      aria-label={label}
    >
      <View aria-hidden>
        <ActivityIndicator size={18} color={colours.petrol} />
      </View>
      <Type tone="faint">{label}…</Type>
    </View>
  );
}
