import type { Todo } from '@immeld/core/contract/recordings';
import { todoChangeSchema } from '@immeld/core/contract/recordings';
import { useState } from 'react';
import { View } from 'react-native';
import { ValidationError } from 'yup';
import { useChanges } from '../../api/queries';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { Field } from '../../ui/field';

/** Changes a to-do: wording, who, by when, project. Saving one in pencil accepts it. */
export function TodoEditor({ todo, onClose }: { todo: Todo; onClose: () => void }) {
  const { todo: change } = useChanges();
  const show = useUndoBar();
  const [text, setText] = useState(todo.text);
  const [who, setWho] = useState(todo.who ?? '');
  const [due, setDue] = useState(todo.due?.replace('T', ' ') ?? '');
  const [project, setProject] = useState(todo.project ?? '');
  const [problem, setProblem] = useState<string | null>(null);

  const save = () => {
    const next = {
      text: text.trim(),
      who: who.trim() || null,
      due: due.trim().replace(' ', 'T') || null,
      project: project.trim() || null,
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
  return (
    <PencilBox isInk style={{ gap: 8, marginVertical: 6 }}>
      <Field label="What is to be done" value={text} onChangeText={setText} autoFocus multiline />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Field label="Who" value={who} onChangeText={setWho} style={{ flex: 1, minWidth: 0 }} />
        <Field
          label="By when"
          placeholder="2026-05-12 09:30"
          value={due}
          onChangeText={setDue}
          style={{ flex: 1, minWidth: 0 }}
        />
      </View>
      <Field label="Project" value={project} onChangeText={setProject} />
      {problem && (
        <Type role="alert" tone="rowan">
          {problem}
        </Type>
      )}
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Save" isBold onPress={save} />
        <WordButton label="Leave as it was" onPress={onClose} />
        <WordButton
          label="Remove"
          onPress={bin}
          style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
        />
      </View>
    </PencilBox>
  );
}
