import { AtkinsonHyperlegible_400Regular } from '@expo-google-fonts/atkinson-hyperlegible/400Regular';
import { AtkinsonHyperlegible_700Bold } from '@expo-google-fonts/atkinson-hyperlegible/700Bold';
import { Literata_400Regular } from '@expo-google-fonts/literata/400Regular';
import { Literata_600SemiBold } from '@expo-google-fonts/literata/600SemiBold';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { ApiProblem } from '../api/call';
import { useJobEvents } from '../api/queries';
import { DeviceProvider, OutboxProvider } from '../offline/deviceContext';
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
                    <Live />
                    <Announcer />
                    <Shell>
                      <ConnectionNotice />
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

function Live() {
  useJobEvents();
  return null;
}
