import { PRIORITIES, PRIORITY_NAMES, type Priority, type Todo, todoChangeSchema } from '@immeld/core/contract/todos';
import { repeatName } from '@immeld/core/language/repeatName';
import { addDays, nextMonday } from 'date-fns';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { ValidationError } from 'yup';
import { useChanges } from '../../api/changes';
import { dayName, localDay } from '../../ui/dates';
import { Field } from '../../ui/field';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { REPEATS } from './understoodChips';

const NO_PRIORITY = 'none';

/** Changes a to-do: wording, who, by when, how often, how urgent. Saving one in pencil accepts it. */
export function TodoEditor({ todo, onClose }: { todo: Todo; onClose: () => void }) {
  const router = useRouter();
  const { todo: change } = useChanges();
  const show = useUndoBar();
  const [text, setText] = useState(todo.text);
  const [who, setWho] = useState(todo.who ?? '');
  const [due, setDue] = useState(todo.due?.replace('T', ' ') ?? '');
  const [project, setProject] = useState(todo.project ?? '');
  const [notes, setNotes] = useState(todo.notes);
  const [priority, setPriority] = useState<string>(todo.priority ?? NO_PRIORITY);
  const [repeat, setRepeat] = useState(todo.repeat ?? 'never');
  const [problem, setProblem] = useState<string | null>(null);
  const repeats = [...new Set(['never', ...REPEATS, todo.repeat ?? 'never'])];

  const save = () => {
    const next = {
      text: text.trim(),
      who: who.trim() || null,
      due: due.trim().replace(' ', 'T') || null,
      project: project.trim() || null,
      notes: notes.trim(),
      priority: priority === NO_PRIORITY ? null : (priority as Todo['priority']),
      repeat: repeat === 'never' ? null : repeat,
    };
    try {
      todoChangeSchema.validateSync(next);
    } catch (error) {
      setProblem(error instanceof ValidationError ? error.message : String(error));
      return;
    }
    change.mutate(
      { id: todo.id, change: { ...next, state: 'ink' } },
      { onSuccess: onClose, onError: (error) => setProblem(error.message) },
    );
  };
  const bin = () => {
    change.mutate({ id: todo.id, change: { isBinned: true } });
    show('To-do removed.', () => change.mutate({ id: todo.id, change: { isBinned: false } }));
    onClose();
  };
  const putOff = (until: string | null) => {
    const before = todo.snoozedUntil;
    change.mutate({ id: todo.id, change: { snoozedUntil: until } });
    if (until) {
      show(`Postponed until ${dayName(until)}.`, () =>
        change.mutate({ id: todo.id, change: { snoozedUntil: before } }),
      );
    }
    onClose();
  };
  const now = new Date();
  return (
    <PencilBox isInk style={{ gap: 8, marginVertical: 6 }}>
      <Field label="To-do" value={text} onChangeText={setText} autoFocus multiline />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Field label="Assigned to" value={who} onChangeText={setWho} style={{ flex: 1, minWidth: 0 }} />
        <Field
          label="Due"
          placeholder="2026-05-12 09:30"
          value={due}
          onChangeText={setDue}
          style={{ flex: 1, minWidth: 0 }}
        />
      </View>
      <Field label="Project" value={project} onChangeText={setProject} />
      <Field label="Notes" value={notes} onChangeText={setNotes} multiline />
      <OneOf
        label="Priority"
        options={[NO_PRIORITY, ...PRIORITIES]}
        nameOf={(p) => PRIORITY_NAMES[p as Priority] ?? p}
        chosen={priority}
        onChoose={setPriority}
      />
      <OneOf
        label="Repeat"
        options={repeats}
        nameOf={(r) => (r === 'never' ? r : repeatName(r))}
        chosen={repeat}
        onChoose={setRepeat}
      />
      {todo.quote && (
        <View>
          <Type size="tiny" tone="faint">
            Said in {todo.recordingTitle}
          </Type>
          <Type face="text">“{todo.quote}”</Type>
          {todo.recordingId && (
            <WordButton
              label="Play"
              onPress={() =>
                router.push({
                  pathname: '/recordings/[id]',
                  params: { id: todo.recordingId!, at: String(todo.startMs ?? 0) },
                })
              }
            />
          )}
        </View>
      )}
      {problem && (
        <Type role="alert" tone="rowan">
          {problem}
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Save" isBold onPress={save} />
        <WordButton label="Cancel" onPress={onClose} />
        {todo.state === 'ink' && !todo.isDone && (
          <>
            {todo.snoozedUntil ? (
              <WordButton label="Stop postponing" onPress={() => putOff(null)} />
            ) : (
              <>
                <WordButton label="Postpone to tomorrow" onPress={() => putOff(localDay(addDays(now, 1)))} />
                <WordButton label="Postpone to Monday" onPress={() => putOff(localDay(nextMonday(now)))} />
              </>
            )}
          </>
        )}
        <WordButton
          label="Remove"
          onPress={bin}
          style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
        />
      </View>
    </PencilBox>
  );
}
