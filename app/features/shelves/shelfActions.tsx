import { type Folder, type Named, TINTS, type ShelfTag } from '@immeld/core/contract/shelves';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type NamedKind, useChanges } from '../../api/changes';
import { useShelves } from '../../api/queries';
import { useShowDone, whenDone } from '../../ui/doing';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { FolderChips } from './folderChips';
import { isWithin } from './folderTree';
import { useClosable } from '../../ui/useClosable';

type Open = 'name' | 'inside' | 'move' | 'tint' | null;

/** Rename, tint, move and remove a folder, and make one inside it; the order among neighbours by keyboard too. */
export function FolderActions({ folder }: { folder: Folder }) {
  const colours = useColours();
  const router = useRouter();
  const { data } = useShelves();
  const { folder: change, newFolder, settings } = useChanges();
  const showDone = useShowDone();
  const [open, setOpen] = useClosable<Open>(null);
  const [typed, setTyped] = useState('');
  const folders = data?.folders ?? [];
  const set = (part: Parameters<typeof change.mutate>[0]['change']) =>
    change.mutate({ id: folder.id, change: part }, { onSuccess: showDone });
  const begin = (what: Open, text = '') => {
    setOpen(open === what ? null : what);
    setTyped(text);
  };
  const end = { onSuccess: () => setOpen(null) };
  const neighbours = folders.filter((f) => f.parentId === folder.parentId).sort((a, b) => a.position - b.position);
  const at = neighbours.findIndex((f) => f.id === folder.id);
  return (
    <View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Rename" onPress={() => begin('name', folder.name)} />
        <WordButton label="Add subfolder" onPress={() => begin('inside')} />
        <WordButton label="Move to" aria-expanded={open === 'move'} onPress={() => begin('move')} />
        <WordButton label="Colour" aria-expanded={open === 'tint'} onPress={() => begin('tint')} />
        {neighbours.length > 1 && (
          <>
            <WordButton label="Move up" disabled={at === 0} onPress={() => set({ position: at - 1 })} />
            <WordButton
              label="Move down"
              disabled={at === neighbours.length - 1}
              onPress={() => set({ position: at + 1 })}
            />
          </>
        )}
        <WordButton label="Make default folder" onPress={() => settings.mutate({ defaultFolderId: folder.id })} />
        <WordButton
          label="Remove folder"
          onPress={() =>
            whenDone(change.mutateAsync({ id: folder.id, change: { isBinned: true } }), (done) => {
              showDone(done);
              router.navigate('/shelves');
            })
          }
        />
      </View>
      {settings.isSuccess && (
        <Type size="tiny" tone="faint" role="status">
          Recordings go here when no other folder is suggested.
        </Type>
      )}
      {open === 'name' && (
        <LineEntry
          label="Name"
          action="Save"
          maxLength={80}
          autoFocus
          value={typed}
          onChange={setTyped}
          onSubmit={() =>
            change.mutate(
              { id: folder.id, change: { name: typed.trim() } },
              {
                onSuccess: (done) => {
                  showDone(done);
                  setOpen(null);
                },
              },
            )
          }
        />
      )}
      {open === 'inside' && (
        <LineEntry
          label="New subfolder"
          action="Add"
          maxLength={80}
          autoFocus
          value={typed}
          onChange={setTyped}
          onSubmit={() => newFolder.mutate({ name: typed.trim(), parentId: folder.id, tint: folder.tint }, end)}
        />
      )}
      {open === 'move' && (
        <View>
          {folder.parentId && <WordButton label="Move out of its folder" onPress={() => set({ parentId: null })} />}
          <FolderChips
            label="Move into"
            chosen={folder.parentId}
            onChoose={(parentId) => set({ parentId })}
            without={(other) => isWithin(other, folder.id, folders)}
          />
        </View>
      )}
      {open === 'tint' && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }} role="radiogroup" aria-label="Colour">
          {TINTS.map((tint) => (
            <Press
              key={tint}
              role="radio"
              aria-checked={tint === folder.tint}
              label={tint}
              onPress={() => set({ tint })}
              style={{ paddingRight: 16 }}
            >
              <View style={{ borderBottomWidth: 4, borderBottomColor: colours[tint] }}>
                <Type isBold={tint === folder.tint}>{tint}</Type>
              </View>
            </Press>
          ))}
        </View>
      )}
      {(change.error ?? newFolder.error) && <Failure error={change.error ?? newFolder.error} />}
    </View>
  );
}

/** Pin, rename or join, and remove a tag. */
export function TagActions({ tag }: { tag: ShelfTag }) {
  const router = useRouter();
  const { tag: change } = useChanges();
  const showDone = useShowDone();
  const [typed, setTyped] = useState<string | null>(null);
  const set = (part: { name?: string; isPinned?: boolean; isRemoved?: boolean }, then?: () => void) =>
    whenDone(change.mutateAsync({ name: tag.name, change: part }), (done) => {
      showDone(done);
      then?.();
    });
  const rename = () => {
    const name = typed!.trim();
    set({ name }, () => router.replace({ pathname: '/shelves/tag', params: { name } }));
    setTyped(null);
  };
  return (
    <View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label={tag.isPinned ? 'Unpin' : 'Pin'} onPress={() => set({ isPinned: !tag.isPinned })} />
        <WordButton label="Rename or merge" onPress={() => setTyped(tag.name)} />
        <WordButton label="Remove tag" onPress={() => set({ isRemoved: true }, () => router.navigate('/shelves'))} />
      </View>
      {typed !== null && (
        <>
          <LineEntry
            label="Name"
            action="Save"
            value={typed}
            onChange={setTyped}
            onSubmit={rename}
            maxLength={60}
            autoFocus
          />
          <Type size="tiny" tone="faint">
            Enter the name of another tag to merge the two.
          </Type>
        </>
      )}
      {change.error && <Failure error={change.error} />}
    </View>
  );
}

/** Rename or join, other names, and remove a person or project. */
export function NamedActions({ kind, named }: { kind: NamedKind; named: Named }) {
  const router = useRouter();
  const { named: change } = useChanges();
  const showDone = useShowDone();
  const [open, setOpen] = useState<'name' | 'names' | null>(null);
  const [typed, setTyped] = useState('');
  const set = (part: Parameters<typeof change.mutate>[0]['change'], then?: () => void) =>
    whenDone(change.mutateAsync({ kind, id: named.id, change: part }), (done) => {
      showDone(done);
      setOpen(null);
      then?.();
    });
  return (
    <View>
      {named.otherNames.length > 0 && (
        <Type size="tiny" tone="faint">
          Also called {named.otherNames.join(', ')}
        </Type>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label="Rename or merge"
          onPress={() => {
            setTyped(named.name);
            setOpen('name');
          }}
        />
        <WordButton
          label="Edit other names"
          onPress={() => {
            setTyped(named.otherNames.join(', '));
            setOpen('names');
          }}
        />
        <WordButton
          label={kind === 'person' ? 'Remove person' : 'Remove project'}
          onPress={() => set({ isRemoved: true }, () => router.navigate('/shelves'))}
        />
      </View>
      {open === 'name' && (
        <LineEntry
          label="Name"
          action="Save"
          value={typed}
          onChange={setTyped}
          onSubmit={() => set({ name: typed.trim() }, () => router.navigate('/shelves'))}
          maxLength={60}
          autoFocus
        />
      )}
      {open === 'names' && (
        <LineEntry
          label="Other names, separated by commas"
          action="Save"
          value={typed}
          onChange={setTyped}
          onSubmit={() =>
            set({
              otherNames: typed
                .split(',')
                .map((n) => n.trim())
                .filter(Boolean),
            })
          }
          maxLength={600}
          autoFocus
        />
      )}
      {change.error && <Failure error={change.error} />}
    </View>
  );
}
