import type { NoteCard } from '@immeld/core/contract/notes';
import { useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useRouter } from 'expo-router';
import { createContext, useContext, useEffect, useState } from 'react';
import { View } from 'react-native';
import { call } from '../../api/call';
import { noteTitle } from '../notes/noteTitle';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { useIsWide } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

export type Quotation = { text: string; startMs: number };

/** Begins to take words or a slip into a note; null where there is no recording around. */
export const QuoteContext = createContext<((quotation: Quotation) => void) | null>(null);
export const useQuoteIntoNote = () => useContext(QuoteContext);

type PanelProps = { recordingId: string; title: string; quotation: Quotation; onClose: () => void };

/** Which note words go into: a new one, or one by words of its title. They lead to their moment from there. */
export function QuotePanel({ recordingId, title, quotation, onClose }: PanelProps) {
  const colours = useColours();
  const isWide = useIsWide();
  const router = useRouter();
  const client = useQueryClient();
  const show = useUndoBar();
  const [typed, setTyped] = useState('');
  const [notes, setNotes] = useState<readonly NoteCard[]>([]);
  const [error, setError] = useState<unknown>(null);
  useEffect(() => {
    let isLatest = true;
    call('listNotes', { query: { titled: typed.trim() || undefined } }).then(
      ({ items }) => isLatest && setNotes(items),
      (problem: unknown) => isLatest && setError(problem),
    );
    return () => {
      isLatest = false;
    };
  }, [typed]);
  const into = async (note: { id: string; title: string } | null) => {
    try {
      const name = note?.title ?? `From “${title}”`.slice(0, 200);
      const id = note?.id ?? (await call('addNote', { body: { title: name } })).id;
      await call('quoteInNote', { params: { id }, body: { recordingId, ...quotation } });
      void client.invalidateQueries({ queryKey: ['notes'] });
      show(`Added to “${name}”.`, () => router.push({ pathname: '/notes/[id]', params: { id } }), 'Open');
      onClose();
    } catch (problem) {
      setError(problem);
    }
  };
  const place = isWide ? { right: 32, bottom: 32, width: 420 } : { left: 8, right: 8, bottom: 8 };
  return (
    <View
      {...({ role: 'dialog' } as object)}
      aria-label="Add to a note"
      style={[
        { position: 'fixed', zIndex: 25, ...place } as object,
        { borderWidth: 1, borderColor: colours.ink, borderRadius: 6, backgroundColor: colours.sheet, padding: 14 },
      ]}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Title level={2}>Add to which note?</Title>
        <WordButton label="Close" onPress={onClose} style={{ marginLeft: 'auto', marginRight: 0 }} />
      </View>
      <Type face="text" numberOfLines={2} tone="faint">
        {quotation.text}
      </Type>
      {error !== null && <Failure error={error} />}
      <WordButton label="New note" isBold onPress={() => void into(null)} />
      <WordButton
        label={`Today’s note, ${format(new Date(), 'd MMM')}`}
        onPress={() => void noteOfToday().then(into, setError)}
      />
      <Field label="Search by title" value={typed} onChangeText={setTyped} maxLength={100} />
      {notes.slice(0, 5).map((note) => (
        <Press key={note.id} label={noteTitle(note)} onPress={() => void into({ id: note.id, title: noteTitle(note) })}>
          <Type>{noteTitle(note)}</Type>
        </Press>
      ))}
    </View>
  );
}

/** The note of today; the server makes it when first words are put into it. */
async function noteOfToday(): Promise<{ id: string; title: string }> {
  const now = new Date();
  const words = { text: 'From a recording:', at: format(now, 'HH:mm') };
  const note = await call('addQuickWords', { params: { date: format(now, 'yyyy-MM-dd') }, body: words });
  return { id: note.id, title: `Note for ${format(now, 'EEEE d MMMM')}` };
}
