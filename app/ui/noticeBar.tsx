import type { ReactNode } from 'react';
import { View } from 'react-native';
import { type Colours, useColours } from './theme';
import { Type } from './type';

type NoticeBarProps = { label: string; tone: keyof Colours; text: string; children: ReactNode };

/** In the place of the speak bar: what is the matter with a recording, and what can be done about it. */
export function NoticeBar({ label, tone, text, children }: NoticeBarProps) {
  const colours = useColours();
  return (
    <View
      role="region"
      aria-label={label}
      style={{
        ...{ borderWidth: 1, borderColor: colours[tone], borderRadius: 4, backgroundColor: colours.sheet },
        ...{ padding: 12, gap: 8 },
      }}
    >
      <Type role="status">{text}</Type>
      <View style={{ flexDirection: 'row', gap: 8 }}>{children}</View>
    </View>
  );
}
