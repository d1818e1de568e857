import type { CSSProperties } from 'react';
import { Text as NativeText, type TextProps } from 'react-native';
import { FONTS, SIZES, type Size, useColours, type Colours } from './theme';

type TypeProps = TextProps & {
  size?: Size;
  /** `text` is the manuscript's serif; everything else is the interface's face. */
  face?: 'face' | 'text';
  isBold?: boolean;
  tone?: keyof Colours;
};

/** All text of the app: our two typefaces in five sizes. */
export function Type({ size = 'small', face = 'face', isBold = false, tone = 'ink', style, ...rest }: TypeProps) {
  const colours = useColours();
  const fontFamily = face === 'text' ? (isBold ? FONTS.textBold : FONTS.text) : isBold ? FONTS.faceBold : FONTS.face;
  const lineHeight = Math.round(SIZES[size] * (face === 'text' ? (size === 'title' ? 1.3 : 1.6) : 1.4));
  return (
    <NativeText {...rest} style={[{ fontFamily, fontSize: SIZES[size], lineHeight, color: colours[tone] }, style]} />
  );
}

const UNSEEN: CSSProperties = {
  ...{ position: 'absolute', width: 1, height: 1, margin: -1, overflow: 'hidden' },
  ...{ clipPath: 'inset(50%)', whiteSpace: 'nowrap' },
};

/** The heading of a screen whose sight says what it is without one. */
export function UnseenTitle({ children }: { children: string }) {
  return <h1 style={UNSEEN}>{children}</h1>;
}

/** For words that only a screen reader says, as what they tell is to be seen anyway. */
export function Unseen({ children }: { children: string }) {
  return (
    <div aria-live="polite" style={UNSEEN}>
      {children}
    </div>
  );
}

/** The one heading of a screen. */
export function Title({ children, level = 1 }: { children: string; level?: 1 | 2 }) {
  return (
    <Type size={level === 1 ? 'title' : 'large'} face="text" isBold={level === 1} role="heading" aria-level={level}>
      {children}
    </Type>
  );
}
