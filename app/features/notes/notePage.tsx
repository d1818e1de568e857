import type { Note } from '@immeld/core/contract/notes';
import type { Editor } from '@tiptap/react';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, TextInput, View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useRelatedToNote } from '../../api/queries';
import { Back } from '../../ui/back';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { FONTS, SIZES, TOUCH, useColours } from '../../ui/theme';
import { Title, Type, UnseenTitle } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { exportAddress } from '../exports/exportNames';
import { FolderChips } from '../shelves/folderChips';
import { RelatedList } from '../shelves/relatedList';
import { NoteEditor } from './noteEditor';
import { NoteHistory } from './noteHistory';
import { NoteMarkdown } from './noteMarkdown';
import { noteTitle } from './noteTitle';
import { ReworkPanel } from './reworkPanel';
import { type WritingState, useNoteWriting } from './useNoteWriting';

const STATE_WORDS: Record<WritingState, string> = {
  kept: 'saved',
  writing: 'saving',
  waiting: 'saved on this device; sent when the server is back',
  conflict: 'also changed on another device',
};

const VIEW_NAMES = { rework: 'Revise', about: 'About' };

/**
 * A note: its title, its text, and under “About” where it is filed and what belongs beside it.
 * @param onTaken called when an earlier text was taken back, which the page has to begin from
 */
export function NotePage({ note, onTaken }: { note: Note; onTaken: () => void }) {
  const router = useRouter();
  const [view, setView] = useState<'text' | 'rework' | 'about'>('text');
  const [editor, setEditor] = useState<Editor | null>(null);
  const writing = useNoteWriting(note);
  return (
    <View style={{ flex: 1, paddingTop: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <Back home="/shelves" />
        <Type size="tiny" tone={writing.state === 'conflict' ? 'rowan' : 'faint'} role="status" style={{ flex: 1 }}>
          {STATE_WORDS[writing.state]}
        </Type>
        {(['rework', 'about'] as const).map((other) => (
          <WordButton
            key={other}
            label={view === other ? 'Text' : VIEW_NAMES[other]}
            onPress={() => setView(view === other ? 'text' : other)}
            style={{ marginRight: 0 }}
          />
        ))}
      </View>
      {note.day ? (
        <Title>{noteTitle(note)}</Title>
      ) : (
        <>
          <UnseenTitle>{noteTitle(note)}</UnseenTitle>
          <NoteTitleField title={writing.title} onChange={writing.rename} />
        </>
      )}
      {writing.state === 'conflict' && <Conflict writing={writing} />}
      {/* The editor stays, so that nothing typed is lost by looking elsewhere. */}
      <View style={{ flex: 1, minHeight: 0, display: view === 'text' ? 'flex' : 'none' }}>
        <NoteEditor noteId={note.id} body={writing.body} onChange={writing.write} onReady={setEditor} />
      </View>
      {view === 'rework' && editor && <ReworkPanel editor={editor} />}
      {view === 'about' && (
        <ScrollView contentContainerStyle={{ paddingBottom: 32 }}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton
              label="Export"
              isBold
              onPress={() => router.push(exportAddress([{ kind: 'note', id: note.id }]))}
            />
            <WordButton
              label="Share by link"
              isBold
              onPress={() => router.push({ pathname: '/links', params: { item: `n${note.id}` } })}
            />
          </View>
          {editor && <NoteMarkdown editor={editor} title={noteTitle(note)} />}
          <NoteHistory note={note} isKept={writing.state === 'kept'} onTaken={onTaken} />
          <AboutNote note={note} />
        </ScrollView>
      )}
    </View>
  );
}

function NoteTitleField({ title, onChange }: { title: string; onChange: (title: string) => void }) {
  const colours = useColours();
  const [typed, setTyped] = useState(title);
  const change = (text: string) => {
    setTyped(text);
    onChange(text.trim());
  };
  return (
    <TextInput
      value={typed}
      onChangeText={change}
      // A long title is read whole; Enter ends it as in a field of one line.
      multiline
      onKeyPress={(e) => {
        if (e.nativeEvent.key !== 'Enter') return;
        e.preventDefault();
        (e.target as unknown as HTMLElement).blur();
      }}
      placeholder="Title"
      placeholderTextColor={colours.faint}
      aria-label="Title of the note"
      maxLength={200}
      style={{
        ...{ minHeight: TOUCH, fontFamily: FONTS.textBold, fontSize: SIZES.title, color: colours.ink },
        ...{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 6 },
        ...({ fieldSizing: 'content', resize: 'none' } as object),
      }}
    />
  );
}

function Conflict({ writing }: { writing: ReturnType<typeof useNoteWriting> }) {
  const router = useRouter();
  const { newNote } = useChanges();
  const keep = () => {
    const body = writing.ownBody();
    if (!body) return;
    newNote.mutate(
      { title: 'My version from this device', body },
      {
        onSuccess: ({ id }) => {
          writing.forget();
          router.replace({ pathname: '/notes/[id]', params: { id } });
        },
      },
    );
  };
  return (
    <View role="alert" style={{ paddingVertical: 6 }}>
      <Type>This note was also changed on another device. Both versions are safe.</Type>
      <WordButton label="Save mine as a new note" isBold onPress={keep} />
    </View>
  );
}

function AboutNote({ note }: { note: Note }) {
  const router = useRouter();
  const { note: change } = useChanges();
  const show = useUndoBar();
  const { data } = useRelatedToNote(note.id);
  const [tag, setTag] = useState('');
  const set = (part: Parameters<typeof change.mutate>[0]['change']) => change.mutate({ id: note.id, change: part });
  const bin = () => {
    set({ isBinned: true });
    show('In the bin for 30 days.', () => set({ isBinned: false }));
    router.navigate('/shelves');
  };
  return (
    <View style={{ gap: 16, paddingVertical: 12 }}>
      {change.error && <Failure error={change.error} />}
      <View>
        <Title level={2}>Folder</Title>
        <FolderChips label="Folder" chosen={note.folderId} onChoose={(folderId) => set({ folderId })} />
      </View>
      <View>
        <Title level={2}>Tags</Title>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {note.tags.map((name) => (
            <WordButton
              key={name}
              label={`${name} ×`}
              onPress={() => set({ tags: note.tags.filter((t) => t !== name) })}
            />
          ))}
        </View>
        <LineEntry
          label="Add a tag"
          action="Add tag"
          value={tag}
          onChange={setTag}
          onSubmit={() => {
            set({ tags: [...note.tags, tag.trim()] });
            setTag('');
          }}
          maxLength={60}
        />
      </View>
      <RelatedList
        title="Notes that link here"
        items={note.linkedFrom.map((l) => ({ ...l, at: '', reason: 'contains a link' }))}
      />
      <RelatedList title="Related" items={data?.items ?? []} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label={note.isFavourite ? 'Remove from favourites' : 'Add to favourites'}
          onPress={() => set({ isFavourite: !note.isFavourite })}
        />
        <WordButton
          label={note.isArchived ? 'Unarchive' : 'Archive'}
          onPress={() => set({ isArchived: !note.isArchived })}
        />
        {note.isBinned ? (
          <WordButton label="Restore" isBold onPress={() => set({ isBinned: false })} />
        ) : (
          <WordButton label="Move to bin" onPress={bin} />
        )}
      </View>
    </View>
  );
}
