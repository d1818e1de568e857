import { RECORDING_SORTS, type RecordingSort } from '@immeld/core/contract/recordingLists';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { allRecordings, useNotes, useRecordings, useShelves } from '../../api/queries';
import { NewNote } from '../../features/notes/newNote';
import { NoteRow } from '../../features/notes/noteRow';
import { FolderActions, NamedActions, TagActions } from '../../features/shelves/shelfActions';
import { type Grouping, GROUPINGS } from '../../features/shelves/grouping';
import { shelfOf } from '../../features/shelves/shelfOf';
import { withNotes } from '../../features/shelves/withNotes';
import { RecordingList } from '../../features/tray/recordingList';
import { RecordingRow } from '../../features/tray/recordingRow';
import { SelectionBar } from '../../features/tray/selectionBar';
import { useSelection } from '../../features/tray/useSelection';
import { scopeAddress } from '../../features/writeUps/scopeAddress';
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
  const chosen = useSelection();
  const hasNotes = !shelf.filter.personId && !shelf.filter.projectId;
  const { data: noteList } = useNotes(shelf.filter, hasNotes);
  const notes = hasNotes ? (noteList?.items ?? []) : [];
  const isNote = (one: string) => notes.some((n) => n.id === one);
  const filter = { ...shelf.filter, sort };
  const { data: recordings } = useRecordings(filter);
  const count = recordings && (noteList || !hasNotes) ? (recordings.pages[0]?.total ?? 0) + notes.length : 0;
  const folder = data?.folders.find((f) => f.id === id);
  const tag = id === 'tag' ? data?.tags.find((t) => t.name === name) : undefined;
  const kind = id === 'person' || id === 'project' ? id : null;
  const named = kind && (kind === 'person' ? data?.people : data?.projects)?.find((n) => n.id === of);
  const chooseAll = async () => {
    const all = await allRecordings(filter);
    chosen.set([...all, ...notes].map((one) => one.id));
  };
  const header = (
    <View style={{ paddingTop: 14, paddingBottom: 4 }}>
      <Title>{shelf.title}</Title>
      {id === 'bin' && (
        <Type size="tiny" tone="faint">
          Items stay here for 30 days. To keep one, open it and choose Restore.
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {(folder ?? id === 'all') && <NewNote folderId={folder?.id ?? null} />}
        <WordButton label="Sort and group" aria-expanded={isArranging} onPress={() => setArranging(!isArranging)} />
        {!chosen.chosen && <WordButton label="Select" onPress={chosen.begin} />}
        {(id === 'all' || folder || tag || named) && (
          <WordButton
            label="Write up all"
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
          <WordButton label="Edit" aria-expanded={isChanging} onPress={() => setChanging(!isChanging)} />
        )}
      </View>
      {isChanging && folder && <FolderActions folder={folder} />}
      {isChanging && tag && <TagActions tag={tag} />}
      {isChanging && kind && named && <NamedActions kind={kind} named={named} />}
      {isArranging && (
        <>
          <OneOf
            label="Sort by"
            options={RECORDING_SORTS}
            nameOf={(s) => SORT_NAMES[s]}
            chosen={sort}
            onChoose={setSort}
          />
          <OneOf label="Group by" options={GROUPINGS} nameOf={(g) => g} chosen={grouping} onChoose={setGrouping} />
        </>
      )}
      {chosen.chosen && (
        <SelectionBar
          ids={[...chosen.chosen].filter((one) => !isNote(one))}
          noteIds={[...chosen.chosen].filter(isNote)}
          where={shelf.where}
          onChooseAll={count ? chooseAll : null}
          onDone={chosen.end}
        />
      )}
    </View>
  );
  return (
    <Page>
      <RecordingList
        filter={filter}
        header={header}
        redrawFor={[chosen.chosen, grouping]}
        between={(items, isComplete) =>
          withNotes(items, isComplete, notes, { sort, grouping }, (note) => (
            <NoteRow
              key={note.id}
              note={note}
              isChosen={chosen.chosen && chosen.chosen.has(note.id)}
              onChoose={() => chosen.toggle(note.id)}
            />
          ))
        }
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
