import { RECORDING_SORTS, type RecordingSort } from '@immeld/core/contract/recordingLists';
import type { NoteCard } from '@immeld/core/contract/notes';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { type ReactElement, useState } from 'react';
import { View } from 'react-native';
import { useNotes, useShelves } from '../../api/queries';
import { NewNote } from '../../features/notes/newNote';
import { NoteRow } from '../../features/notes/noteRow';
import { FolderActions, NamedActions, TagActions } from '../../features/shelves/shelfActions';
import { type Grouping, GROUPINGS, groupName } from '../../features/shelves/grouping';
import { shelfOf } from '../../features/shelves/shelfOf';
import { RecordingList } from '../../features/tray/recordingList';
import { RecordingRow } from '../../features/tray/recordingRow';
import { SelectionBar } from '../../features/tray/selectionBar';
import { useChosen } from '../../features/tray/useChosen';
import { scopeAddress } from '../../features/writeUps/scopeAddress';
import { localTime } from '../../ui/dates';
import { Empty } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { Title, Type } from '../../ui/type';

const SORT_NAMES: Record<RecordingSort, string> = {
  newest: 'newest',
  oldest: 'oldest',
  title: 'title',
  longest: 'longest',
};

/** A shelf: a folder, a tag, a person or a project, everything, favourites, the archive or the bin. */
export default function ShelfScreen() {
  const { id, name, of } = useLocalSearchParams<{ id: string; name?: string; of?: string }>();
  const router = useRouter();
  const { data } = useShelves();
  const shelf = shelfOf(id, { ...(name ? { name } : {}), ...(of ? { of } : {}) }, data);
  const [sort, setSort] = useState<RecordingSort>('newest');
  const [grouping, setGrouping] = useState<Grouping>('none');
  const [isArranging, setArranging] = useState(false);
  const [isChanging, setChanging] = useState(false);
  const chosen = useChosen();
  const hasNotes = !shelf.filter.personId && !shelf.filter.projectId;
  const { data: notes } = useNotes(shelf.filter, hasNotes);
  const [shown, setShown] = useState<readonly RecordingCard[]>([]);
  const folder = data?.folders.find((f) => f.id === id);
  const tag = id === 'tag' ? data?.tags.find((t) => t.name === name) : undefined;
  const kind = id === 'person' || id === 'project' ? id : null;
  const named = kind && (kind === 'person' ? data?.people : data?.projects)?.find((n) => n.id === of);
  const header = (
    <View style={{ paddingTop: 14, paddingBottom: 4 }}>
      <Title>{shelf.title}</Title>
      {id === 'bin' && (
        <Type size="tiny" tone="faint">
          What is here is kept for 30 days. Open a recording to take it out again.
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {(folder ?? id === 'all') && <NewNote folderId={folder?.id ?? null} />}
        <WordButton label="Arrange" aria-expanded={isArranging} onPress={() => setArranging(!isArranging)} />
        {!chosen.chosen && <WordButton label="Choose several" onPress={chosen.begin} />}
        {(id === 'all' || folder || tag || named) && (
          <WordButton
            label="Write-up of all"
            onPress={() =>
              router.push({
                pathname: '/together',
                params: scopeAddress({
                  ...(folder ? { folderId: folder.id } : {}),
                  ...(tag ? { tag: tag.name } : {}),
                  ...(named ? (kind === 'person' ? { personId: named.id } : { projectId: named.id }) : {}),
                }),
              })
            }
          />
        )}
        {(folder ?? tag ?? named) && (
          <WordButton label="Change shelf" aria-expanded={isChanging} onPress={() => setChanging(!isChanging)} />
        )}
      </View>
      {isChanging && folder && <FolderActions folder={folder} />}
      {isChanging && tag && <TagActions tag={tag} />}
      {isChanging && kind && named && <NamedActions kind={kind} named={named} />}
      {isArranging && (
        <>
          <OneOf
            label="In order of"
            options={RECORDING_SORTS}
            nameOf={(s) => SORT_NAMES[s]}
            chosen={sort}
            onChoose={setSort}
          />
          <OneOf label="In groups by" options={GROUPINGS} nameOf={(g) => g} chosen={grouping} onChoose={setGrouping} />
        </>
      )}
      {chosen.chosen && (
        <SelectionBar
          ids={[...chosen.chosen]}
          where={shelf.where}
          onChooseAll={shown.length ? () => chosen.set(shown.map((r) => r.id)) : null}
          onDone={chosen.end}
        />
      )}
    </View>
  );
  return (
    <Page>
      <RecordingList
        filter={{ ...shelf.filter, sort }}
        header={header}
        redrawFor={[chosen.chosen, grouping]}
        between={(items, isComplete) => {
          if (items !== shown && items.length !== shown.length) queueMicrotask(() => setShown(items));
          return withNotes(items, isComplete, hasNotes ? (notes?.items ?? []) : [], sort, grouping);
        }}
        renderItem={(recording) => (
          <RecordingRow
            recording={recording}
            isChosen={chosen.chosen && chosen.chosen.has(recording.id)}
            onChoose={() => chosen.toggle(recording.id)}
          />
        )}
        empty={<Empty title={shelf.empty.title}>{shelf.empty.text}</Empty>}
      />
    </Page>
  );
}

/** Notes at their place among the recordings, and the names of groups before their first. */
function withNotes(
  recordings: readonly RecordingCard[],
  isComplete: boolean,
  notes: readonly NoteCard[],
  sort: RecordingSort,
  grouping: Grouping,
): (RecordingCard | ReactElement)[] {
  const noteOf = (note: NoteCard) => ({
    at: localTime(new Date(note.changedAt)),
    title: note.title,
    row: <NoteRow key={note.id} note={note} />,
    group: groupName(grouping, null, note.changedAt),
  });
  const all = [
    ...recordings.map((r) => ({
      at: r.startedAt,
      title: r.title ?? '',
      row: r as RecordingCard | ReactElement,
      group: groupName(grouping, r, r.startedAt),
    })),
  ];
  const waiting = notes.map(noteOf);
  const comesBefore = (a: { at: string; title: string }, b: { at: string; title: string }) =>
    sort === 'oldest'
      ? a.at < b.at
      : sort === 'title'
        ? a.title.localeCompare(b.title) < 0
        : sort === 'longest'
          ? false
          : a.at > b.at;
  const rows: typeof all = [];
  for (const item of all) {
    for (let i = 0; i < waiting.length;) {
      if (comesBefore(waiting[i]!, item)) rows.push(...waiting.splice(i, 1));
      else i++;
    }
    rows.push(item);
  }
  if (isComplete) rows.push(...waiting);
  const groups = grouping === 'none' ? [null] : [...new Set(rows.map((r) => r.group))];
  if (grouping === 'none') return rows.map((r) => r.row);
  return groups.flatMap((group) => [
    <View key={`group ${group}`} style={{ paddingTop: 16 }}>
      <Title level={2}>{group ?? ''}</Title>
    </View>,
    ...rows.filter((r) => r.group === group).map((r) => r.row),
  ]);
}
