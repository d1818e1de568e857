import { TYPED_PARTS, type TypedPart, typedTodo } from '@immeld/core/language/todos/typedTodo';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useShelves } from '../../api/queries';
import { localTime } from '../../ui/dates';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { Press } from '../../ui/press';
import { MicrophoneSign } from '../../ui/speakBar';
import { useColours } from '../../ui/theme';
import { Type, Unseen } from '../../ui/type';
import { useListening } from '../../ui/useListening';
import { type ChosenParts, UnderstoodChips, chipName } from './understoodChips';

const NOTHING: ReadonlySet<TypedPart> = new Set();

/** One line for a to-do, in plain words, written or said; what is understood of it stands below as chips before it is added. */
export function TodoEntry() {
  const colours = useColours();
  const { newTodo } = useChanges();
  const { data: shelves } = useShelves();
  const [line, setLineAlone] = useState('');
  const [asText, setAsText] = useState(NOTHING);
  const [chosen, setChosen] = useState<ChosenParts>({});
  const setLine = (text: string) => {
    setLineAlone(text);
    if (text.trim()) return;
    setAsText(NOTHING);
    setChosen({});
  };
  const { isOn, toggle } = useListening((text) => setLine(text.replace(/[.!]$/, '')));
  const [projects, people] = [shelves?.projects ?? [], shelves?.people ?? []];
  const read = line.trim() ? typedTodo(line, localTime(new Date()).slice(0, 16), { projects, people }, asText) : null;
  const todo = read && { ...read, ...chosen, namedPerson: chosen.who ? null : read.namedPerson };
  const add = () => {
    if (!todo?.text) return;
    const { namedPerson: _, ...rest } = todo;
    // The next one can be written while this one is on its way; one that could not be kept comes back.
    setLine('');
    newTodo.mutate({ ...rest, text: rest.text.slice(0, 500) }, { onError: () => setLineAlone((now) => now || line) });
  };
  const backToText = (part: TypedPart) => {
    setChosen(({ [part]: _, ...others }) => others);
    setAsText(new Set([...asText, part]));
  };
  const understood = todo ? TYPED_PARTS.flatMap((p) => chipName(todo, p) ?? []) : [];
  return (
    <View style={{ gap: 6 }}>
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
      {todo && (
        <UnderstoodChips
          todo={todo}
          names={{ projects: projects.map((p) => p.name), people: people.map((p) => p.name) }}
          onChoose={(part, value) => setChosen({ ...chosen, [part]: value })}
          onBackToText={backToText}
        />
      )}
      <Unseen>{understood.length ? `Will be added with: ${understood.join(' · ')}` : ''}</Unseen>
      {understood.length === 0 && (
        <Type size="tiny" tone="faint">
          Write it as you would say it: “call Jun tomorrow at nine for the orchard, urgent”.
        </Type>
      )}
      {newTodo.error && <Failure error={newTodo.error} />}
    </View>
  );
}
