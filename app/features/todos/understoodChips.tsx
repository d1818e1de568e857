import { PRIORITIES, PRIORITY_NAMES, type Priority } from '@immeld/core/contract/todos';
import { repeatName } from '@immeld/core/language/repeatName';
import { TYPED_PARTS, type TypedPart, type TypedTodo } from '@immeld/core/language/todos/typedTodo';
import { View } from 'react-native';
import { DayField } from '../../ui/dayField';
import { dueName } from '../../ui/dates';
import { OneOf } from '../../ui/oneOf';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useClosable } from '../../ui/useClosable';

export const REPEATS = ['FREQ=DAILY', 'FREQ=WEEKLY', 'FREQ=MONTHLY', 'FREQ=YEARLY'];

/** The parts of a to-do that a chip can set by hand. */
export type ChosenParts = Partial<Pick<TypedTodo, TypedPart>>;

/** What a part says, as its chip reads; null where there is nothing to show. */
export function chipName(todo: Pick<TypedTodo, TypedPart>, part: TypedPart): string | null {
  const value = todo[part];
  if (value === null || value === 'me') return null;
  if (part === 'due') return dueName(value);
  if (part === 'repeat') return repeatName(value);
  if (part === 'priority') return `${PRIORITY_NAMES[value as Priority]} priority`;
  return value;
}

type Props = {
  todo: TypedTodo;
  names: { projects: readonly string[]; people: readonly string[] };
  onChoose: (part: TypedPart, value: string) => void;
  /** The words of a part are meant as words: they stay in the text. */
  onBackToText: (part: TypedPart) => void;
};

/** What was understood of a line, as chips in pencil: a tap changes one, its cross takes it back into the text. */
export function UnderstoodChips({ todo, names, onChoose, onBackToText }: Props) {
  const colours = useColours();
  const [open, setOpen] = useClosable<TypedPart | null>(null);
  const shown = TYPED_PARTS.flatMap((part) => {
    const name = chipName(todo, part);
    return name === null ? [] : [{ part, name }];
  });
  const choose = (part: TypedPart) => (value: string) => {
    onChoose(part, value);
    setOpen(null);
  };
  const isOpen = open !== null && shown.some(({ part }) => part === open);
  return (
    <View style={{ gap: 6 }}>
      <View role="group" aria-label="Understood" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {shown.map(({ part, name }) => (
          <View
            key={part}
            style={{
              ...{ flexDirection: 'row', borderWidth: 1, borderStyle: 'dashed', borderColor: colours.faint },
              borderRadius: 4,
            }}
          >
            <Press
              label={`${name}. Change`}
              aria-expanded={open === part}
              onPress={() => setOpen(open === part ? null : part)}
              style={{ justifyContent: 'center', paddingLeft: 10 }}
            >
              <Type size="small">{name}</Type>
            </Press>
            <Press
              label={`Put ${name} back into the text`}
              onPress={() => onBackToText(part)}
              style={{ justifyContent: 'center', alignItems: 'center', minWidth: 48 }}
            >
              <Type size="small" tone="faint">
                ×
              </Type>
            </Press>
          </View>
        ))}
        {todo.namedPerson && (
          <WordButton label={`Assign to ${todo.namedPerson}`} onPress={() => onChoose('who', todo.namedPerson!)} />
        )}
      </View>
      {isOpen && <PartChoice part={open} todo={todo} names={names} onChoose={choose(open)} />}
    </View>
  );
}

type ChoiceProps = Pick<Props, 'todo' | 'names'> & { part: TypedPart; onChoose: (value: string) => void };

function PartChoice({ part, todo, names, onChoose }: ChoiceProps) {
  const value = todo[part] ?? '';
  switch (part) {
    case 'due':
      return <DayField label="Due" day={value.slice(0, 10)} onChange={(day) => onChoose(day + value.slice(10))} />;
    case 'repeat':
      return <OneOf label="Repeat" options={REPEATS} nameOf={repeatName} chosen={value} onChoose={onChoose} />;
    case 'priority':
      return (
        <OneOf
          label="Priority"
          options={PRIORITIES}
          nameOf={(p) => PRIORITY_NAMES[p]}
          chosen={value as Priority}
          onChoose={onChoose}
        />
      );
    case 'project':
      return <OneOf label="Project" options={names.projects} nameOf={(n) => n} chosen={value} onChoose={onChoose} />;
    case 'who':
      return (
        <OneOf
          label="Assigned to"
          options={['me', ...names.people]}
          nameOf={(n) => n}
          chosen={value}
          onChoose={onChoose}
        />
      );
  }
}
