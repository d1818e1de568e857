import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges, useShelves } from '../../api/queries';
import { RecordingList } from '../../features/tray/recordingList';
import { Empty } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { LineEntry } from '../../ui/lineEntry';

const FIXED: Record<string, string> = { all: 'Everything', bin: 'Bin', tag: 'Tag' };

/** A shelf: a folder by its id, or everything, the bin or a tag. */
export default function ShelfScreen() {
  const { id, name } = useLocalSearchParams<{ id: string; name?: string }>();
  const { data } = useShelves();
  const folder = data?.folders.find((f) => f.id === id);
  const isFixed = id in FIXED;
  const title = id === 'tag' ? (name ?? '') : (FIXED[id] ?? folder?.name ?? '');
  const filter = isFixed
    ? { place: id === 'bin' ? ('bin' as const) : ('all' as const), ...(id === 'tag' && name ? { tag: name } : {}) }
    : { place: 'shelves' as const, folderId: id };
  return (
    <Page>
      <RecordingList
        filter={filter}
        header={
          <View style={{ paddingTop: 14, paddingBottom: 4 }}>
            <Title>{title}</Title>
            {id === 'bin' && (
              <Type size="tiny" tone="faint">
                What is here is kept for 30 days. Open a recording to take it out again.
              </Type>
            )}
            {folder && <FolderActions id={folder.id} name={folder.name} />}
          </View>
        }
        empty={
          <Empty title={id === 'bin' ? 'The bin is empty' : 'Nothing on this shelf yet'}>
            {id === 'bin'
              ? 'What you throw away waits here for 30 days.'
              : 'Recordings that you file here stand on this shelf, newest first.'}
          </Empty>
        }
      />
    </Page>
  );
}

function FolderActions({ id, name }: { id: string; name: string }) {
  const router = useRouter();
  const { folder: change } = useChanges();
  const show = useUndoBar();
  const [typed, setTyped] = useState<string | null>(null);
  const remove = () => {
    change.mutate({ id, change: { isBinned: true } });
    show(`“${name}” is removed. Its recordings stay under Everything.`, () =>
      change.mutate({ id, change: { isBinned: false } }),
    );
    router.navigate('/shelves');
  };
  if (typed === null) {
    return (
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Rename" onPress={() => setTyped(name)} />
        <WordButton label="Remove folder" onPress={remove} />
      </View>
    );
  }
  const save = () => {
    if (typed.trim()) change.mutate({ id, change: { name: typed.trim() } }, { onSuccess: () => setTyped(null) });
  };
  return (
    <LineEntry label="Name" action="Save" value={typed} onChange={setTyped} onSubmit={save} maxLength={80} autoFocus />
  );
}
