import { createElement, useRef } from 'react';
import { View } from 'react-native';
import { WordButton } from '../../ui/press';

type DayPickerProps = { date: string; onChoose: (date: string) => void };

/** Jumps to any day by the browser's own calendar. */
export function DayPicker({ date, onChoose }: DayPickerProps) {
  const field = useRef<HTMLInputElement | null>(null);
  const open = () => {
    try {
      field.current?.showPicker();
    } catch {
      field.current?.focus();
    }
  };
  return (
    <View>
      <WordButton label="Choose a day" onPress={open} />
      {createElement('input', {
        ref: field,
        type: 'date',
        value: date,
        'aria-label': 'Go to a day',
        tabIndex: -1,
        onChange: (event: { target: HTMLInputElement }) => {
          if (/^\d{4}-\d{2}-\d{2}$/.test(event.target.value)) onChoose(event.target.value);
        },
        // Only its calendar is wanted; the heading already says the day.
        style: { position: 'absolute', bottom: 0, right: 0, width: 1, height: 1, opacity: 0, pointerEvents: 'none' },
      })}
    </View>
  );
}
