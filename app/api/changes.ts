import type { Quality } from '@immeld/core/speech/packs';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { NewCalendar } from '@immeld/core/contract/appointments';
import type { NoteBody, NoteChange } from '@immeld/core/contract/notes';
import type { ParagraphChange } from '@immeld/core/contract/paragraphs';
import type { Filing, Recording, RecordingChange, WriteUpChange } from '@immeld/core/contract/recordings';
import type { Replacement } from '@immeld/core/contract/replacements';
import type { SettingsChange } from '@immeld/core/contract/settings';
import type { Batch, FolderChange, NamedChange, NewFolder } from '@immeld/core/contract/shelves';
import type { SlipChange } from '@immeld/core/contract/slips';
import type { SpeakerChange } from '@immeld/core/contract/speakers';
import type { NewTodo, Todo, TodoChange, TodoPlaces } from '@immeld/core/contract/todos';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { v4 as newId } from 'uuid';
import { clearResponses } from '../offline/responseCache';
import { addTodo, changeTodo, changedTodo, orderTodos } from '../offline/todosToSend';
import { localTime } from '../ui/dates';
import { call } from './call';

export type NamedKind = 'person' | 'project';

export type Credentials = { email: string; password: string };

const CHANGES_TODO = ['todo'];

function withPlaces(items: readonly Todo[], places: TodoPlaces['places']): { items: Todo[] } {
  const placed = new Map(places.map(({ id, position }) => [id, position]));
  return { items: items.map((todo) => ({ ...todo, position: placed.get(todo.id) ?? todo.position })) };
}

/** Everything a person can change; each answer refreshes what shows it. */
export function useChanges() {
  const client = useQueryClient();
  const refresh = () =>
    Promise.all(
      [
        ['recordings'],
        ['shelves'],
        ['todos'],
        ['todoFeed'],
        ['sheets'],
        ['templates'],
        ['find'],
        ['calendars'],
        ['notes'],
        ['history'],
      ].map((queryKey) => client.invalidateQueries({ queryKey })),
    );
  const keep = (recording: Recording) => client.setQueryData(['recordings', 'one', recording.id], recording);
  const done = { onSettled: refresh };
  /** While more changes of to-dos are on their way, an answer in between would show them undone. */
  const todoDone = {
    onSettled: () => (client.isMutating({ mutationKey: CHANGES_TODO }) === 1 ? refresh() : undefined),
  };
  /** Somebody else is signed in: nothing that was shown before is true any more. */
  const refreshAll = async () => {
    await clearResponses();
    await client.resetQueries();
  };
  return {
    recording: useMutation({
      mutationFn: ({ id, change }: { id: string; change: RecordingChange }) =>
        call('changeRecording', { params: { id }, body: change }),
      onSuccess: keep,
      ...done,
    }),
    file: useMutation({
      mutationFn: ({ id, filing }: { id: string; filing: Filing }) =>
        call('fileRecording', { params: { id }, body: filing }),
      onSuccess: keep,
      ...done,
    }),
    todo: useMutation({
      mutationKey: CHANGES_TODO,
      mutationFn: ({ id, change }: { id: string; change: TodoChange }) => changeTodo(id, change),
      // Shown at once: an older list that is on its way would close what is being written.
      onMutate: async ({ id, change }) => {
        await client.cancelQueries({ queryKey: ['todos'] });
        const changed = (todo: Todo) => (todo.id === id ? (changedTodo(todo, change) ?? []) : todo);
        client.setQueryData<{ items: Todo[] }>(
          ['todos'],
          (before) => before && { items: before.items.flatMap(changed) },
        );
      },
      ...todoDone,
    }),
    todoOrder: useMutation({
      mutationKey: CHANGES_TODO,
      mutationFn: orderTodos,
      onMutate: async ({ places }: TodoPlaces) => {
        await client.cancelQueries({ queryKey: ['todos'] });
        client.setQueryData<{ items: Todo[] }>(['todos'], (before) => before && withPlaces(before.items, places));
      },
      ...todoDone,
    }),
    slip: useMutation({
      mutationFn: ({ id, change }: { id: string; change: SlipChange }) =>
        call('changeSlip', { params: { id }, body: change }),
      ...done,
    }),
    comment: useMutation({
      mutationFn: ({ id, text }: { id: string; text: string }) =>
        call('addComment', { params: { id }, body: { id: newId(), text } }),
      ...done,
    }),
    uncomment: useMutation({
      mutationFn: (params: { id: string; commentId: string }) => call('removeComment', { params }),
      ...done,
    }),
    newTodo: useMutation({ mutationFn: (body: NewTodo) => addTodo({ ...body, id: newId() }), ...done }),
    writeUp: useMutation({
      mutationFn: ({ id, change }: { id: string; change: WriteUpChange }) =>
        call('changeWriteUp', { params: { id }, body: change }),
      ...done,
    }),
    newFolder: useMutation({ mutationFn: (body: NewFolder) => call('addFolder', { body }), ...done }),
    batch: useMutation({ mutationFn: (body: Batch) => call('changeMany', { body }), ...done }),
    todoFeed: useMutation({ mutationFn: (isOn: boolean) => call('changeTodoFeed', { body: { isOn } }), ...done }),
    undo: useMutation({ mutationFn: (id: string) => call('undoDeed', { params: { id } }), ...done }),
    tag: useMutation({
      mutationFn: ({
        name,
        change,
      }: {
        name: string;
        change: { name?: string; isPinned?: boolean; isRemoved?: boolean };
      }) => call('changeTag', { params: { name }, body: change }),
      ...done,
    }),
    named: useMutation({
      mutationFn: ({ kind, id, change }: { kind: NamedKind; id: string; change: NamedChange }) =>
        call(kind === 'person' ? 'changePerson' : 'changeProject', { params: { id }, body: change }),
      ...done,
    }),
    newNamed: useMutation({
      mutationFn: ({ kind, name }: { kind: NamedKind; name: string }) =>
        call(kind === 'person' ? 'addPerson' : 'addProject', { body: { name } }),
      ...done,
    }),
    newNote: useMutation({
      mutationFn: (body: { title: string; folderId?: string | null; body?: NoteBody }) => call('addNote', { body }),
      ...done,
    }),
    noteVersion: useMutation({
      mutationFn: ({ id, versionId }: { id: string; versionId: string }) =>
        call('takeNoteVersion', { params: { id, versionId }, body: {} }),
      onSuccess: (note) => client.setQueryData(['notes', 'one', note.id], note),
      ...done,
    }),
    note: useMutation({
      mutationFn: ({ id, change }: { id: string; change: NoteChange }) =>
        call('changeNote', { params: { id }, body: change }),
      onSuccess: (note) => client.setQueryData(['notes', 'one', note.id], note),
      ...done,
    }),
    quickWords: useMutation({
      mutationFn: ({ date, text }: { date: string; text: string }) =>
        call('addQuickWords', { params: { date }, body: { text, at: localTime(new Date()).slice(11, 16) } }),
      ...done,
    }),
    folder: useMutation({
      mutationFn: ({ id, change }: { id: string; change: FolderChange }) =>
        call('changeFolder', { params: { id }, body: change }),
      ...done,
    }),
    askToSignUp: useMutation({ mutationFn: (email: string) => call('askToSignUp', { body: { email } }) }),
    signUp: useMutation({
      mutationFn: (body: Credentials & { code?: string }) =>
        call('signUp', { body: { ...body, code: body.code ?? null } }),
      onSuccess: refreshAll,
    }),
    signIn: useMutation({ mutationFn: (body: Credentials) => call('signIn', { body }), onSuccess: refreshAll }),
    signOut: useMutation({ mutationFn: () => call('signOut'), onSuccess: refreshAll }),
    endSession: useMutation({
      mutationFn: (id: string) => call('endSession', { params: { id } }),
      onSuccess: refreshAll,
    }),
    endOtherSessions: useMutation({ mutationFn: () => call('endOtherSessions'), onSuccess: refreshAll }),
    forgotPassword: useMutation({ mutationFn: (email: string) => call('forgotPassword', { body: { email } }) }),
    setForgottenPassword: useMutation({
      mutationFn: (body: { email: string; code: string; newPassword: string }) =>
        call('setForgottenPassword', { body }),
      onSuccess: refreshAll,
    }),
    changePassword: useMutation({
      mutationFn: (body: { password: string; newPassword: string }) => call('changePassword', { body }),
      onSuccess: refreshAll,
    }),
    settings: useMutation({
      mutationFn: (body: SettingsChange) => call('changeSettings', { body }),
      onSuccess: (settings) => {
        client.setQueryData(['settings'], settings);
        return client.invalidateQueries({ queryKey: ['settings', 'older'] });
      },
    }),
    newCalendar: useMutation({ mutationFn: (body: NewCalendar) => call('addCalendar', { body }), ...done }),
    refreshCalendar: useMutation({
      mutationFn: (id: string) => call('refreshCalendar', { params: { id } }),
      ...done,
    }),
    removeCalendar: useMutation({ mutationFn: (id: string) => call('removeCalendar', { params: { id } }), ...done }),
    speaker: useMutation({
      mutationFn: ({ id, change }: { id: string; change: SpeakerChange }) =>
        call('changeSpeaker', { params: { id }, body: change }),
      onSuccess: ({ recording }) => keep(recording),
      ...done,
    }),
    replaceWords: useMutation({ mutationFn: (body: Replacement) => call('replaceWords', { body }), ...done }),
    undoReplacement: useMutation({
      mutationFn: (id: string) => call('undoReplacement', { params: { id } }),
      ...done,
    }),
    paragraphs: useMutation({
      mutationFn: ({ id, change }: { id: string; change: ParagraphChange }) =>
        call('changeParagraphs', { params: { id }, body: change }),
      onSuccess: ({ recording }) => keep(recording),
      ...done,
    }),
    restoreVersion: useMutation({
      mutationFn: (params: { id: string; versionId: string }) => call('restoreVersion', { params }),
      onSuccess: keep,
      ...done,
    }),
    recognise: useMutation({
      mutationFn: ({ id, ...again }: { id: string; cleaning: Partial<Cleaning>; quality: Quality | null }) =>
        call('recogniseAgain', { params: { id }, body: again }),
      ...done,
    }),
  };
}
export type Changes = ReturnType<typeof useChanges>;
