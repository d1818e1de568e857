import type { NoteCard } from '@immeld/core/contract/notes';
import { useRouter } from 'expo-router';
import { memo } from 'react';
import { View } from 'react-native';
import { localTime, whenSaid } from '../../ui/dates';
import { Tick } from '../../ui/pencil';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { noteTitle } from './noteTitle';

type NoteRowProps = {
  note: NoteCard;
  /** Null while nothing is being chosen. */
  isChosen?: boolean | null;
  onChoose?: () => void;
};

/** A note as a line of a list; while things are chosen, a press chooses it. */
export const NoteRow = memo(function NoteRow({ note, isChosen = null, onChoose }: NoteRowProps) {
  const colours = useColours();
  const router = useRouter();
  const isChoosing = isChosen !== null;
  const changed = whenSaid(localTime(new Date(note.changedAt)));
  return (
    <Press
      role={isChoosing ? 'checkbox' : 'link'}
      {...(isChoosing ? { 'aria-checked': isChosen } : {})}
      label={`Note: ${noteTitle(note)}, ${changed}`}
      onPress={() => (isChoosing ? onChoose?.() : router.push({ pathname: '/notes/[id]', params: { id: note.id } }))}
      style={{
        ...{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingVertical: 12 },
        ...{ flexDirection: 'row', alignItems: 'center', gap: 14 },
        ...{ borderLeftWidth: 2, borderLeftColor: colours.faint, paddingLeft: 12 },
      }}
    >
      {isChoosing && <Tick isOn={isChosen} />}
      <View style={{ flex: 1, gap: 2 }}>
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
      </View>
    </Press>
  );
});
