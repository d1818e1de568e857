import { AtkinsonHyperlegible_400Regular } from '@expo-google-fonts/atkinson-hyperlegible/400Regular';
import { AtkinsonHyperlegible_700Bold } from '@expo-google-fonts/atkinson-hyperlegible/700Bold';
import { Literata_400Regular } from '@expo-google-fonts/literata/400Regular';
import { Literata_600SemiBold } from '@expo-google-fonts/literata/600SemiBold';
import { QueryClient, QueryClientProvider, useQueryClient } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { ApiProblem } from '../api/call';
import { useJobEvents } from '../api/queries';
import { DeviceProvider, OutboxProvider } from '../offline/deviceContext';
import { pruneResponses, flushResponses } from '../offline/responseCache';
import { sendDrafts } from '../offline/noteDrafts';
import { sendTodos } from '../offline/todosToSend';
import { UpdateNotice } from '../offline/updateNotice';
import { Announcer } from '../ui/announcer';
import { ConnectionNotice } from '../ui/connectionNotice';
import { DropTarget } from '../ui/dropTarget';
import { Shell } from '../ui/shell';
import { ColourContext, DARK, LIGHT, paperTheme } from '../ui/theme';
import { UndoBarProvider } from '../ui/undoBar';

/** Tries again only where another try can help. */
const isWorthRetrying = (count: number, error: Error): boolean =>
  error instanceof ApiProblem && error.status === null
    ? count < 1000
    : count < 2 && !(error instanceof ApiProblem && (error.status ?? 500) < 500);

export default function RootLayout() {
  const [fontsLoaded, fontError] = useFonts({
    AtkinsonHyperlegible_400Regular,
    AtkinsonHyperlegible_700Bold,
    Literata_400Regular,
    Literata_600SemiBold,
  });
  const isDark = useColorScheme() === 'dark';
  const colours = isDark ? DARK : LIGHT;
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: { retry: isWorthRetrying, retryDelay: 3000, staleTime: 5000, networkMode: 'always' },
          mutations: { networkMode: 'always' },
        },
      }),
  );
  if (!fontsLoaded && !fontError) return null;
  return (
    <SafeAreaProvider>
      <ColourContext.Provider value={colours}>
        <PaperProvider theme={paperTheme(colours, isDark)}>
          <QueryClientProvider client={client}>
            <DeviceProvider>
              <OutboxProvider>
                <UndoBarProvider>
                  <DropTarget>
                    <Announcer />
                    <Shell>
                      <Live />
                      <UpdateNotice />
                      <Slot />
                    </Shell>
                  </DropTarget>
                </UndoBarProvider>
              </OutboxProvider>
            </DeviceProvider>
          </QueryClientProvider>
        </PaperProvider>
      </ColourContext.Provider>
    </SafeAreaProvider>
  );
}

/** What was written and ticked while the server did not answer. */
const sendKept = async (): Promise<number> => (await sendTodos()) + (await sendDrafts());

function Live() {
  useJobEvents();
  const client = useQueryClient();
  useEffect(() => {
    void sendKept().then((count) => (count > 0 ? client.invalidateQueries() : undefined));
    void pruneResponses();
    const leave = () => void flushResponses();
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  }, [client]);
  const refresh = async () => {
    await sendKept();
    // What stood there meanwhile was what had been seen last.
    await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'connection' });
  };
  return <ConnectionNotice onBack={() => void refresh()} />;
}
