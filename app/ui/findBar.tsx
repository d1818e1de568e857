import { useGlobalSearchParams, usePathname, useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { TextInput, View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import { Press } from './press';
import { FONTS, SIZES, TOUCH, useColours } from './theme';
import { Type } from './type';

/** The bar on top of every place: what is typed here is looked for as one types. */
export function FindBar({ isWide }: { isWide: boolean }) {
  const colours = useColours();
  const router = useRouter();
  const pathname = usePathname();
  const { q } = useGlobalSearchParams<{ q?: string }>();
  const isFinding = pathname === '/find';
  const [typed, setTyped] = useState(q ?? '');
  const input = useRef<TextInput>(null);

  useEffect(() => {
    if (!isFinding) setTyped('');
  }, [isFinding]);

  useEffect(() => {
    const focus = (event: KeyboardEvent) => {
      const inField = /^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName);
      if (event.key !== '/' || inField || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      input.current?.focus();
    };
    window.addEventListener('keydown', focus);
    return () => window.removeEventListener('keydown', focus);
  }, []);

  const change = (text: string) => {
    setTyped(text);
    if (isFinding) router.setParams({ q: text });
    else if (text) router.push({ pathname: '/find', params: { q: text } });
  };
  return (
    <View
      {...({ role: 'search' } as object)}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 10,
        borderBottomWidth: 1,
        borderBottomColor: colours.ink,
        minHeight: TOUCH,
      }}
    >
      <Svg width={20} height={20} viewBox="0 0 20 20" aria-hidden>
        <Circle cx={8} cy={8} r={6} stroke={colours.faint} strokeWidth={1.6} fill="none" />
        <Path d="M12.5 12.5L18 18" stroke={colours.faint} strokeWidth={1.6} />
      </Svg>
      <TextInput
        ref={input}
        value={typed}
        onChangeText={change}
        placeholder="Find words that were said"
        placeholderTextColor={colours.faint}
        aria-label="Find words that were said"
        inputMode="search"
        maxLength={300}
        style={{
          flex: 1,
          minWidth: 0,
          height: TOUCH,
          fontFamily: FONTS.face,
          fontSize: SIZES.small,
          color: colours.ink,
          outlineWidth: 0,
        }}
      />
      {typed ? (
        <Press label="Clear" onPress={() => change('')} style={{ alignItems: 'center' }}>
          <Type tone="faint">Clear</Type>
        </Press>
      ) : (
        isWide && <Type tone="faint">/</Type>
      )}
    </View>
  );
}
