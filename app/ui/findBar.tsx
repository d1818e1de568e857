import { useGlobalSearchParams, usePathname, useRouter } from 'expo-router';
import { useEffect, useRef } from 'react';
import { TextInput, View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import { findText, useFindText } from './findText';
import { isInField } from './inField';
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
  const typed = useFindText();
  const input = useRef<TextInput>(null);

  useEffect(() => {
    if (!isFinding) findText.clear();
    else if (q !== undefined) findText.hear(q);
  }, [isFinding, q]);

  useEffect(() => {
    const field = input.current as unknown as HTMLInputElement | null;
    if (!isFinding || !field) return;
    if (findText.isBeingTyped()) {
      field.focus();
      field.setSelectionRange(field.value.length, field.value.length);
    }
    findText.arrive();
  }, [isFinding]);

  useEffect(() => {
    const focus = (event: KeyboardEvent) => {
      if (event.key !== '/' || isInField(event) || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      input.current?.focus();
    };
    window.addEventListener('keydown', focus);
    return () => window.removeEventListener('keydown', focus);
  }, []);

  const change = (text: string) => {
    findText.type(text);
    if (isFinding) router.setParams({ q: text });
    else if (text) router.navigate({ pathname: '/find', params: { q: text } });
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
        placeholder="Search, or ask a question"
        placeholderTextColor={colours.faint}
        aria-label="Search, or ask a question"
        inputMode="search"
        maxLength={5000}
        style={{
          flex: 1,
          minWidth: 0,
          height: TOUCH,
          // The frame of the focus does not touch the words.
          paddingHorizontal: 8,
          marginLeft: -8,
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
