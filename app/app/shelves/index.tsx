import type { Named, ShelfTag } from '@immeld/core/contract/shelves';
import { type Href, useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { type NamedKind, useChanges } from '../../api/changes';
import { useNotes, useShelves } from '../../api/queries';
import { MovableFolders } from '../../features/shelves/movableFolders';
import { NewNote } from '../../features/notes/newNote';
import { NoteRow } from '../../features/notes/noteRow';
import { Empty, Failure, Loading } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { LineEntry } from '../../ui/lineEntry';

/** Of the notes that lie in no folder, so many are shown here. */
const LOOSE_NOTES = 5;

export default function ShelvesScreen() {
  const router = useRouter();
  const { data, error, refetch } = useShelves();
  const go = (id: string) => router.push({ pathname: '/shelves/[id]', params: { id } });
  const counted = (label: string, count: number) => (count ? `${label} · ${count}` : label);
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}>
        <Title>Shelves</Title>
        {error && !data && <Failure error={error} onRetry={() => void refetch()} />}
        {!data && !error && <Loading />}
        {data && (
          <>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
              <WordButton label="Everything" onPress={() => go('all')} />
              {data.favouriteCount > 0 && (
                <WordButton label={counted('Favourites', data.favouriteCount)} onPress={() => go('favourites')} />
              )}
              {data.archiveCount > 0 && (
                <WordButton label={counted('Archive', data.archiveCount)} onPress={() => go('archive')} />
              )}
              <WordButton label={counted('Bin', data.binCount)} onPress={() => go('bin')} />
              <WordButton label="History" onPress={() => router.push('/history')} />
              <WordButton label="Weekly overview" onPress={() => router.push('/weeks')} />
              <WordButton label="Share links" onPress={() => router.push('/links')} />
            </View>
            {data.folders.length === 0 && (
              <Empty title="No folders yet">File your recordings in folders. Add your first one below.</Empty>
            )}
            <MovableFolders folders={data.folders} />
            <NewFolder />
            <LooseNotes />
            <TagChips tags={data.tags} />
            <NamedChips kind="project" title="Projects" items={data.projects} />
            <NamedChips kind="person" title="People" items={data.people} />
          </>
        )}
      </ScrollView>
    </Page>
  );
}

function NewFolder() {
  const { newFolder } = useChanges();
  const [name, setName] = useState('');
  const add = () => {
    if (name.trim())
      newFolder.mutate({ name: name.trim() }, { onSuccess: () => setName((now) => (now === name ? '' : now)) });
  };
  return (
    <View style={{ paddingTop: 14 }}>
      <LineEntry label="New folder" action="Add" value={name} onChange={setName} onSubmit={add} maxLength={80} />
      {newFolder.error && <Failure error={newFolder.error} />}
    </View>
  );
}

function LooseNotes() {
  const { data } = useNotes({ place: 'all' });
  const notes = data?.items.filter((n) => !n.folderId && !n.day) ?? [];
  return (
    <View style={{ paddingTop: 20 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
        <Title level={2}>Notes</Title>
        <NewNote folderId={null} />
      </View>
      {notes.slice(0, LOOSE_NOTES).map((note) => (
        <NoteRow key={note.id} note={note} />
      ))}
      {notes.length === 0 && <Type tone="faint">Notes without a folder appear here.</Type>}
    </View>
  );
}

type ChipProps = { label: string; count: number; isPinned?: boolean; href: Href };

function Chip({ label, count, isPinned = false, href }: ChipProps) {
  const colours = useColours();
  const router = useRouter();
  return (
    <Press
      role="link"
      label={`${label}, ${count}`}
      onPress={() => router.push(href)}
      style={{
        ...{ borderWidth: 1, borderColor: isPinned ? colours.ink : colours.rule, borderRadius: 4 },
        ...{ backgroundColor: colours.sheet, paddingHorizontal: 14, alignItems: 'center' },
      }}
    >
      <Type>
        {label}{' '}
        <Type size="tiny" tone="faint">
          {count}
        </Type>
      </Type>
    </Press>
  );
}

function TagChips({ tags }: { tags: readonly ShelfTag[] }) {
  if (tags.length === 0) return null;
  return (
    <View style={{ paddingTop: 20, gap: 6 }}>
      <Title level={2}>Tags</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {tags.map(({ name, itemCount, isPinned }) => (
          <Chip
            key={name}
            label={name}
            count={itemCount}
            isPinned={isPinned}
            href={{ pathname: '/shelves/tag', params: { name } }}
          />
        ))}
      </View>
    </View>
  );
}

function NamedChips({ kind, title, items }: { kind: NamedKind; title: string; items: readonly Named[] }) {
  const { newNamed } = useChanges();
  const [name, setName] = useState<string | null>(null);
  const add = () => newNamed.mutate({ kind, name: name!.trim() }, { onSuccess: () => setName(null) });
  return (
    <View style={{ paddingTop: 20, gap: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
        <Title level={2}>{title}</Title>
        {name === null && (
          <WordButton
            label={kind === 'person' ? 'Add a person' : 'Add a project'}
            onPress={() => setName('')}
            style={{ marginRight: 0 }}
          />
        )}
      </View>
      {name !== null && (
        <LineEntry label="Name" action="Add" value={name} onChange={setName} onSubmit={add} maxLength={60} autoFocus />
      )}
      {newNamed.error && <Failure error={newNamed.error} />}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {items.map((item) => (
          <Chip
            key={item.id}
            label={item.name}
            count={item.itemCount}
            href={{ pathname: '/shelves/[id]', params: { id: kind, of: item.id } }}
          />
        ))}
      </View>
    </View>
  );
}
