import { type ReactNode, useState } from 'react';
import {
  type GestureResponderEvent,
  Pressable,
  type PressableProps,
  type StyleProp,
  View,
  type ViewStyle,
} from 'react-native';
import { type Colours, TOUCH, useColours } from './theme';
import { Type } from './type';

type PressProps = Omit<PressableProps, 'children' | 'style'> & {
  label: string;
  children?: ReactNode;
  style?: StyleProp<ViewStyle>;
};

/**
 * The key that react-native-web does not take by itself: it leaves Enter on a link to the browser, which knows only anchors,
 * and the blank on what is switched or chosen (ARIA Authoring Practices, switch, radio group, check box).
 */
const KEYS: Partial<Record<string, string>> = { link: 'Enter', switch: ' ', radio: ' ', checkbox: ' ', tab: ' ' };

/** Anything that can be pressed: at least 48 px, with a visible focus ring. */
export function Press({ label, children, style, ...rest }: PressProps) {
  const colours = useColours();
  const [isFocused, setFocused] = useState(false);
  return (
    <Pressable
      role="button"
      aria-label={label}
      {...rest}
      {...(rest.role === 'switch' ? ({ dataSet: { keyed: String(isFocused) } } as object) : {})}
      {...(KEYS[rest.role ?? 'button']
        ? {
            onKeyDown: (e: KeyboardEvent) => {
              if (e.key !== KEYS[rest.role ?? 'button'] || rest.disabled) return;
              // After a click the blank belongs to the page: it plays.
              if (rest.role === 'switch' && !isFocused) return;
              e.preventDefault();
              rest.onPress?.(e as unknown as GestureResponderEvent);
            },
          }
        : {})}
      onFocus={(e) => {
        setFocused((e.target as unknown as Element).matches?.(':focus-visible') ?? true);
        rest.onFocus?.(e);
      }}
      onBlur={(e) => {
        setFocused(false);
        rest.onBlur?.(e);
      }}
      style={[
        { minHeight: TOUCH, minWidth: TOUCH, justifyContent: 'center' },
        style,
        isFocused && { outlineWidth: 2, outlineStyle: 'solid', outlineColor: colours.petrol, outlineOffset: 2 },
        rest.disabled && { opacity: 0.55 },
      ]}
    >
      {children}
    </Pressable>
  );
}

type WordButtonProps = Omit<PressProps, 'children'> & { isBold?: boolean; tone?: keyof Colours };

/** A button that is an underlined verb. */
export function WordButton({ label, isBold, tone = 'ink', style, ...rest }: WordButtonProps) {
  const colours = useColours();
  return (
    <Press label={label} style={[{ alignItems: 'flex-start', marginRight: 20, maxWidth: '100%' }, style]} {...rest}>
      <View style={{ borderBottomWidth: 1, borderBottomColor: colours[tone] }}>
        <Type isBold={isBold ?? false} tone={tone}>
          {label}
        </Type>
      </View>
    </Press>
  );
}

/** A button in a frame; `isMain` is filled with ink. */
export function FrameButton({ label, isMain = false, style, children, ...rest }: PressProps & { isMain?: boolean }) {
  const colours = useColours();
  return (
    <Press
      label={label}
      style={[
        {
          borderWidth: 1,
          borderColor: colours.ink,
          backgroundColor: isMain ? colours.ink : colours.sheet,
          borderRadius: 4,
          paddingHorizontal: 18,
          alignItems: 'center',
          maxWidth: '100%',
        },
        style,
      ]}
      {...rest}
    >
      {children ?? <Type tone={isMain ? 'sheet' : 'ink'}>{label}</Type>}
    </Press>
  );
}
