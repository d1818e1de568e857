import type { Line, MadeSection } from '@immeld/core/contract/templates';
import { clockTime } from '@immeld/core/formats/times';
import { useState } from 'react';
import { View } from 'react-native';
import { dueWords } from '../../ui/dates';
import { Tick } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { firstLines } from './firstLines';

type SheetTextProps = {
  sections: readonly MadeSection[];
  /** Plays a line from its moment; without it the times are only shown. */
  onPlay?: (line: Line) => void;
  /** Which sections stay when it is made again, by their numbers. */
  kept?: { numbers: readonly number[]; toggle: (at: number) => void };
};

/** The text of a write-up: each line leads to its second. */
export function SheetText({ sections, onPlay, kept }: SheetTextProps) {
  return (
    <View style={{ gap: 4 }}>
      {sections.map((section, i) => (
        <View key={i} style={{ paddingTop: section.heading && i > 0 ? 10 : 0 }}>
          {section.heading !== '' && <Title level={2}>{section.heading}</Title>}
          {kept && (
            <Press
              label={`Keep ${section.heading || 'this section'} as it is`}
              role="checkbox"
              aria-checked={kept.numbers.includes(i)}
              onPress={() => kept.toggle(i)}
              style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 10 }}
            >
              <Tick isOn={kept.numbers.includes(i)} size={18} />
              <Type size="small">Keep this section as it is</Type>
            </Press>
          )}
          {section.groups.length === 0 && <Type tone="faint">Nothing was said about this.</Type>}
          <Groups section={section} {...(onPlay ? { onPlay } : {})} />
        </View>
      ))}
    </View>
  );
}

/** So many lines are shown at once: a whole text of hours has thousands, which would keep the page busy for seconds. */
const LINES_AT_ONCE = 200;

type GroupsProps = { section: MadeSection; onPlay?: (line: Line) => void };

function Groups({ section, onPlay }: GroupsProps) {
  const [shown, setShown] = useState(LINES_AT_ONCE);
  const { groups, left } = firstLines(section.groups, shown);
  return (
    <>
      {groups.map((group, g) => (
        <View key={g} style={{ paddingBottom: section.form === 'text' ? 6 : 0 }}>
          {group.name !== null && (
            <Type isBold tone="faint" style={{ paddingTop: 6 }}>
              {group.name}
            </Type>
          )}
          {group.lines.map((line, l) => (
            <LineOf key={l} line={line} number={l + 1} section={section} {...(onPlay ? { onPlay } : {})} />
          ))}
        </View>
      ))}
      {left > 0 && (
        <WordButton
          label={`Show more: ${left.toLocaleString('en')} ${left === 1 ? 'line is' : 'lines are'} hidden`}
          onPress={() => setShown(shown + LINES_AT_ONCE)}
        />
      )}
    </>
  );
}

type LineProps = { line: Line; number: number; section: MadeSection; onPlay?: (line: Line) => void };

function LineOf({ line, number, section: { form, indent }, onPlay }: LineProps) {
  const { startMs, text, person } = line;
  const who = person && person !== 'me' ? person : null;
  const more = line.todoId ? [who, dueWords(line)].filter(Boolean).join(', ') : '';
  const isTable = form === 'table';
  const words = (
    <View style={{ flexDirection: 'row', gap: 10, paddingLeft: indent * 18 }}>
      {form === 'checks' && (
        <View style={{ paddingTop: 3 }}>
          <Tick isOn={line.isDone} isPencil size={16} />
        </View>
      )}
      {form === 'points' && (
        <Type size="body" face="text" tone="faint">
          •
        </Type>
      )}
      {form === 'numbered' && (
        <Type size="body" face="text" tone="faint">
          {number}.
        </Type>
      )}
      {isTable && (
        <Type size="small" isBold style={{ width: 96 }}>
          {person ?? ''}
        </Type>
      )}
      <Type size="body" face="text" style={{ flex: 1 }}>
        {text}
        {more !== '' && !isTable && (
          <Type size="tiny" tone="faint">
            {'  '}
            {more}
          </Type>
        )}
        {isTable && line.due && (
          <Type size="tiny" tone="faint">
            {'  '}
            {dueWords(line)}
          </Type>
        )}
        {startMs !== null && (
          <Type size="tiny" tone="petrol">
            {'  '}
            {clockTime(startMs)}
          </Type>
        )}
        {line.isUncited && (
          <Type size="tiny" tone="rowan">
            {'  '}
            no source in the recording
          </Type>
        )}
      </Type>
    </View>
  );
  if (!onPlay || startMs === null) return <View style={{ paddingVertical: 4 }}>{words}</View>;
  return (
    <Press label={`${text} Play ${clockTime(startMs)}`} onPress={() => onPlay(line)} style={{ paddingVertical: 3 }}>
      {words}
    </Press>
  );
}
