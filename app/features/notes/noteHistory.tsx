import type { Note } from '@immeld/core/contract/notes';
import { EditorContent, useEditor } from '@tiptap/react';
import { format, parseISO } from 'date-fns';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useNoteVersion, useNoteVersions } from '../../api/queries';
import { Failure, Loading } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { noteExtensions } from './noteDocument';
import { useClosable } from '../../ui/useClosable';

type HistoryProps = { note: Note; isKept: boolean; onTaken: () => void };

/** Earlier texts of a note: read them, and take one back. What is written now becomes an earlier text itself. */
export function NoteHistory({ note: { id }, isKept, onTaken }: HistoryProps) {
  const { data, error } = useNoteVersions(id);
  const { noteVersion } = useChanges();
  const show = useUndoBar();
  const [open, setOpen] = useClosable<string | null>(null);
  const take = (versionId: string) =>
    noteVersion.mutate(
      { id, versionId },
      {
        onSuccess: () => {
          onTaken();
          show('Earlier version restored. The text it replaced is saved under “About”.');
        },
      },
    );
  return (
    <View>
      <Title level={2}>Earlier versions</Title>
      {error && <Failure error={error} />}
      {noteVersion.error && <Failure error={noteVersion.error} />}
      {data?.items.length === 0 && (
        <Type tone="faint">None yet. While you write, Immeld saves a version every ten minutes.</Type>
      )}
      {data?.items.map((version) => (
        <View key={version.id}>
          <WordButton
            label={`Until ${format(parseISO(version.until), 'd MMM, H:mm')} · ${version.words} ${version.words === 1 ? 'word' : 'words'}`}
            aria-expanded={open === version.id}
            onPress={() => setOpen(open === version.id ? null : version.id)}
          />
          {open === version.id && (
            <PencilBox isInk>
              <EarlierText noteId={id} versionId={version.id} />
              <WordButton
                label="Restore this version"
                isBold
                disabled={!isKept || noteVersion.isPending}
                onPress={() => take(version.id)}
              />
            </PencilBox>
          )}
        </View>
      ))}
    </View>
  );
}

function EarlierText({ noteId, versionId }: { noteId: string; versionId: string }) {
  const { data, error } = useNoteVersion(noteId, versionId);
  if (error) return <Failure error={error} />;
  return data ? <ReadOnly body={data.body} /> : <Loading />;
}

function ReadOnly({ body }: { body: Note['body'] }) {
  const editor = useEditor({
    extensions: noteExtensions(),
    content: body,
    editable: false,
    editorProps: { attributes: { class: 'immeld-note', 'aria-label': 'Earlier version', role: 'document' } },
  });
  return <EditorContent editor={editor} />;
}
