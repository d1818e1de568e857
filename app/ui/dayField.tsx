import { createElement } from 'react';
import { View } from 'react-native';
import { FONTS, SIZES, TOUCH, useColours } from './theme';
import { Type } from './type';

type DayFieldProps = {
  label: string;
  /** `2026-03-09`, or empty. */
  day: string;
  onChange: (day: string) => void;
  /** Whether it may be emptied again. */
  mayBeEmpty?: boolean;
};

/** A day, chosen with the browser's own calendar. */
export function DayField({ label, day, onChange, mayBeEmpty = false }: DayFieldProps) {
  const colours = useColours();
  return (
    <View>
      <Type size="tiny" tone="faint">
        {label}
      </Type>
      {createElement('input', {
        ...{ type: 'date', value: day, 'aria-label': label },
        onChange: (event: { target: HTMLInputElement }) => {
          const { value } = event.target;
          if (/^\d{4}-\d{2}-\d{2}$/.test(value) || (mayBeEmpty && value === '')) onChange(value);
        },
        style: {
          ...{ minHeight: TOUCH, fontFamily: FONTS.face, fontSize: SIZES.small, color: colours.ink },
          ...{ background: colours.sheet, border: `1px solid ${colours.rule}`, borderRadius: 4, padding: '0 10px' },
        },
      })}
    </View>
  );
}
