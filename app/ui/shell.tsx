import { usePathname, useRouter } from 'expo-router';
import { type ReactNode, useEffect, useRef } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { useShelves } from '../api/queries';
import { isCapturing as isOn, useCapture, useCaptureNow, useElsewhere, useOutbox } from '../offline/deviceContext';
import { FindBar } from './findBar';
import { findText } from './findText';
import { isInField } from './inField';
import { KeysPanel } from './keysPanel';
import { useMarkKinds } from './mark';
import { PackOffer } from './packOffer';
import { PlaceIcon, type PlaceName, SettingsIcon } from './placeIcon';
import { Press } from './press';
import { SpeakBar } from './speakBar';
import { useSpeak } from './useSpeak';
import { READING_WIDTH, WIDE_FROM, useColours } from './theme';
import { Type } from './type';

const PLACES: { place: PlaceName; label: string; path: '/' | '/tray' | '/shelves' | '/todos'; letter: string }[] = [
  { place: 'day', label: 'Day', path: '/', letter: 'd' },
  { place: 'tray', label: 'Tray', path: '/tray', letter: 't' },
  { place: 'shelves', label: 'Shelves', path: '/shelves', letter: 's' },
  { place: 'todos', label: 'To-dos', path: '/todos', letter: 'o' },
];

export const useIsWide = (): boolean => useWindowDimensions().width >= WIDE_FROM;

const isHere = (path: string, pathname: string) => (path === '/' ? pathname === '/' : pathname.startsWith(path));

/**
 * Keys that work everywhere: G and a letter for the places, Shift+Space and Shift+Enter for recording; 1 to 9 mark what
 * is being recorded, from its first moment on and whatever is looked at meanwhile. In a recording they mark its words.
 */
function usePlaceKeys(): void {
  const router = useRouter();
  const engine = useCapture();
  const speak = useSpeak();
  const { offered } = useMarkKinds();
  const pathname = usePathname();
  // Kept beyond a drawing: the second key may come after one.
  const isGoing = useRef(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.shiftKey && event.code === 'Space') {
        event.preventDefault();
        if (engine.state.stage === 'recording') engine.pause();
        else if (engine.state.stage === 'paused') engine.resume();
        else speak();
      } else if (event.shiftKey && event.key === 'Enter') engine.finish();
      else if (isGoing.current) {
        const place = PLACES.find((p) => p.letter === event.key.toLowerCase());
        if (place) router.navigate(place.path);
      } else if (isOn(engine.state) && !pathname.startsWith('/recordings/')) {
        const kind = offered[Number(event.key) - 1];
        if (kind) engine.addSlip({ kind: 'mark', mark: kind.id });
      }
      isGoing.current = event.key.toLowerCase() === 'g';
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [router, engine, speak, offered, pathname]);
}

/** Letters that are typed while the page of what was found opens are not lost. */
function useTypedOn(): void {
  const router = useRouter();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (document.activeElement !== document.body || event.key.length !== 1) return;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      // Only between two bars: where there is one, or on a page with keys of its own, nothing is to be caught.
      if (document.querySelector('[role="search"] input') || /^\/(?:recordings|notes)\//.test(location.pathname))
        return;
      const q = findText.typeOn(event.key);
      if (q === null) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      router.navigate({ pathname: '/find', params: { q } });
    };
    window.addEventListener('keydown', press, true);
    return () => window.removeEventListener('keydown', press, true);
  }, [router]);
}

/** The frame of all places: bottom bar on the phone, a spine at the left on wide screens. */
export function Shell({ children }: { children: ReactNode }) {
  const colours = useColours();
  const isWide = useIsWide();
  const pathname = usePathname();
  const router = useRouter();
  const { data } = useShelves();
  usePlaceKeys();
  useTypedOn();
  const counts: Partial<Record<PlaceName, number>> = { tray: data?.trayCount ?? 0, todos: data?.openTodoCount ?? 0 };
  const isCapturing = useCaptureNow(isOn);
  const problem = useCaptureNow((now) => now.problem);
  const isElsewhere = useElsewhere() !== null;
  // Where the phone is for reading, it stands only while there is something to say.
  const hasStopped = useOutbox().stopped.length > 0;
  const needsBar = isCapturing || isElsewhere || hasStopped || problem !== null;
  // The quick page stands alone, as small as a card; so does a page that may be printed.
  if (pathname === '/quick' || pathname.startsWith('/page/'))
    return (
      <View role={pathname === '/quick' ? 'main' : undefined} style={{ flex: 1, backgroundColor: colours.paper }}>
        {children}
      </View>
    );
  // What is read or written has the whole phone; its own page leads back.
  const hasWholePhone = /^\/(?:recordings|notes|map|study)\//.test(pathname);
  if (isWide) {
    return (
      <View style={{ flex: 1, flexDirection: 'row', backgroundColor: colours.paper }}>
        <KeysPanel />
        <Spine counts={counts} pathname={pathname} />
        <View style={{ flex: 1, minWidth: 0 }}>
          <View role="main" style={{ flex: 1, minHeight: 0 }}>
            {children}
          </View>
          {pathname === '/' && (
            <View style={{ width: '100%', maxWidth: READING_WIDTH + 96, alignSelf: 'center', paddingHorizontal: 36 }}>
              <PackOffer />
            </View>
          )}
        </View>
      </View>
    );
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      {!hasWholePhone && pathname !== '/now' && (
        <View
          role="banner"
          style={{ paddingHorizontal: 16, paddingTop: 8, flexDirection: 'row', alignItems: 'center', gap: 8 }}
        >
          <View style={{ flex: 1 }}>
            <FindBar isWide={false} />
          </View>
          <Press
            label="Settings"
            role="link"
            onPress={() => router.navigate('/settings')}
            style={{ alignItems: 'center' }}
          >
            <SettingsIcon colour={colours.faint} />
          </Press>
        </View>
      )}
      <View role="main" style={{ flex: 1, minHeight: 0 }}>
        {children}
      </View>
      {hasWholePhone && needsBar && (
        <View role="region" aria-label="Speak" style={{ padding: 12 }}>
          <SpeakBar />
        </View>
      )}
      {!hasWholePhone && (
        <View style={{ borderTopWidth: 1, borderTopColor: colours.rule }}>
          {pathname === '/' && <PackOffer />}
          <View role="region" aria-label="Speak" style={{ padding: 12, paddingBottom: 8 }}>
            <SpeakBar />
          </View>
          <View
            role="navigation"
            aria-label="Places"
            style={{ flexDirection: 'row', borderTopWidth: 1, borderTopColor: colours.rule }}
          >
            {PLACES.map((p) => (
              <PlaceTab key={p.place} {...p} isOn={isHere(p.path, pathname)} count={counts[p.place] ?? 0} />
            ))}
          </View>
        </View>
      )}
    </View>
  );
}

type TabProps = (typeof PLACES)[number] & { isOn: boolean; count: number };

function PlaceTab({ place, label, path, isOn, count }: TabProps) {
  const colours = useColours();
  const router = useRouter();
  return (
    <Press
      label={count ? `${label}, ${count}` : label}
      role="link"
      aria-current={isOn ? 'page' : undefined}
      onPress={() => router.navigate(path)}
      style={{
        flex: 1,
        alignItems: 'center',
        paddingTop: 7,
        paddingBottom: 6,
        borderTopWidth: 3,
        borderTopColor: isOn ? colours.ink : 'transparent',
      }}
    >
      <PlaceIcon place={place} colour={isOn ? colours.ink : colours.faint} />
      <Type size="tiny" tone={isOn ? 'ink' : 'faint'}>
        {count ? `${label} · ${count}` : label}
      </Type>
    </Press>
  );
}

function Spine({ counts, pathname }: { counts: Partial<Record<PlaceName, number>>; pathname: string }) {
  const colours = useColours();
  const router = useRouter();
  const { data } = useShelves();
  return (
    <View
      role="banner"
      style={{ width: 190, borderRightWidth: 1, borderRightColor: colours.rule, padding: 12, paddingTop: 20 }}
    >
      <Type size="large" face="text" style={{ paddingLeft: 16, paddingBottom: 10 }}>
        Immeld
      </Type>
      <View role="navigation" aria-label="Places" style={{ flex: 1, minHeight: 0 }}>
        {PLACES.map((p) => {
          const isOn = isHere(p.path, pathname);
          const count = counts[p.place];
          return (
            <View key={p.place}>
              <Press
                label={count ? `${p.label}, ${count}` : p.label}
                role="link"
                aria-current={isOn ? 'page' : undefined}
                onPress={() => router.navigate(p.path)}
                style={{ paddingLeft: 13, borderLeftWidth: 3, borderLeftColor: isOn ? colours.ink : 'transparent' }}
              >
                <Type size="body" tone={isOn ? 'ink' : 'faint'}>
                  {p.label} {count ? <Type tone="faint">{count}</Type> : null}
                </Type>
              </Press>
              {p.place === 'shelves' &&
                data?.folders.slice(0, 8).map((folder) => (
                  <Press
                    key={folder.id}
                    label={folder.name}
                    role="link"
                    onPress={() => router.navigate({ pathname: '/shelves/[id]', params: { id: folder.id } })}
                    style={{ paddingLeft: 30 }}
                  >
                    <Type
                      tone={pathname.endsWith(folder.id) ? 'ink' : 'faint'}
                      isBold={pathname.endsWith(folder.id)}
                      numberOfLines={1}
                    >
                      {folder.name}
                    </Type>
                  </Press>
                ))}
            </View>
          );
        })}
      </View>
      <Press
        label="Settings"
        role="link"
        aria-current={pathname === '/settings' ? 'page' : undefined}
        onPress={() => router.navigate('/settings')}
        style={{ paddingLeft: 16 }}
      >
        <Type tone={pathname === '/settings' ? 'ink' : 'faint'}>Settings</Type>
      </Press>
      <SpeakBar isNarrow />
    </View>
  );
}

/** The column of a place: find bar on top on wide screens, a reading width, room at the sides. */
export function Page({ children, isFull = false }: { children: ReactNode; isFull?: boolean }) {
  const isWide = useIsWide();
  return (
    <View
      style={{
        flex: 1,
        minHeight: 0,
        width: '100%',
        maxWidth: isFull ? undefined : READING_WIDTH + 96,
        alignSelf: 'center',
        paddingHorizontal: isWide ? 48 : 16,
      }}
    >
      {isWide && (
        <View style={{ paddingTop: 14, paddingBottom: 6 }}>
          <FindBar isWide />
        </View>
      )}
      {children}
    </View>
  );
}
