import type { NoteCard } from '@immeld/core/contract/notes';
import { useRouter } from 'expo-router';
import { memo } from 'react';
import { localTime, whenSaid } from '../../ui/dates';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { noteTitle } from './noteTitle';

/** A note as a line of a list. */
export const NoteRow = memo(function NoteRow({ note }: { note: NoteCard }) {
  const colours = useColours();
  const router = useRouter();
  const changed = whenSaid(localTime(new Date(note.changedAt)));
  return (
    <Press
      role="link"
      label={`Note ${noteTitle(note)}, ${changed}`}
      onPress={() => router.push({ pathname: '/notes/[id]', params: { id: note.id } })}
      style={{
        ...{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 12, gap: 2 },
        ...{ borderLeftWidth: 2, borderLeftColor: colours.faint, paddingLeft: 12 },
      }}
    >
      <Type size="body" face="text" numberOfLines={2}>
        {noteTitle(note)}
      </Type>
      <Type size="tiny" tone="faint" numberOfLines={1}>
        {['note', changed, ...note.tags].join(' · ')}
      </Type>
      {note.firstWords !== '' && (
        <Type tone="faint" numberOfLines={2}>
          {note.firstWords}
        </Type>
      )}
    </Press>
  );
});
