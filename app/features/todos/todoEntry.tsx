import { repeatName } from '@immeld/core/language/repeatName';
import { typedTodo } from '@immeld/core/language/todos/typedTodo';
import { PRIORITY_NAMES } from '@immeld/core/contract/todos';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useShelves } from '../../api/queries';
import { dueName, localTime } from '../../ui/dates';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { Press } from '../../ui/press';
import { MicrophoneSign } from '../../ui/speakBar';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useListening } from '../../ui/useListening';

/** One line for a to-do, written or said; what is understood of it stands below before it is added. */
export function TodoEntry() {
  const colours = useColours();
  const { newTodo } = useChanges();
  const { data: shelves } = useShelves();
  const [line, setLine] = useState('');
  const { isOn, toggle } = useListening((text) => setLine(text.replace(/[.!]$/, '')));
  const read = line.trim()
    ? typedTodo(line, localTime(new Date()).slice(0, 16), {
        projects: shelves?.projects ?? [],
        people: shelves?.people ?? [],
      })
    : null;
  const add = () => {
    if (!read?.text) return;
    // The next one can be written while this one is on its way; one that could not be kept comes back.
    setLine('');
    newTodo.mutate({ ...read, text: read.text.slice(0, 500) }, { onError: () => setLine((now) => now || line) });
  };
  const understood = read
    ? [
        read.due && dueName(read.due),
        read.repeat && repeatName(read.repeat),
        read.project,
        read.who !== 'me' && read.who && `for ${read.who}`,
        read.priority && `${PRIORITY_NAMES[read.priority]} priority`,
      ].filter(Boolean)
    : [];
  return (
    <View style={{ gap: 2 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <LineEntry label="Add a to-do" action="Add" value={line} onChange={setLine} onSubmit={add} maxLength={500} />
        </View>
        <Press
          label={isOn ? 'Stop listening' : 'Speak a to-do'}
          aria-pressed={isOn}
          onPress={toggle}
          style={{
            ...{ borderWidth: 1, borderColor: isOn ? colours.rowan : colours.rule, borderRadius: 4 },
            ...{ alignItems: 'center', width: 48 },
          }}
        >
          <MicrophoneSign isOn={isOn} />
        </Press>
      </View>
      <Type size="tiny" tone="faint" aria-live="polite">
        {understood.length
          ? `Will be added with: ${understood.join(' · ')}`
          : 'You can include a date, #project, @person or !high.'}
      </Type>
      {newTodo.error && <Failure error={newTodo.error} />}
    </View>
  );
}
