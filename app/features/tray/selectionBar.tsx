import type { Batch } from '@immeld/core/contract/shelves';
import { useMutation } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useShowDone } from '../../ui/doing';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { FolderChips } from '../shelves/folderChips';
import { exportAddress } from '../exports/exportNames';
import { scopeAddress } from '../writeUps/scopeAddress';
import { useClosable } from '../../ui/useClosable';

export type Where = 'tray' | 'shelf' | 'archive' | 'bin';
type SelectionBarProps = {
  /** Recordings. */
  ids: readonly string[];
  noteIds?: readonly string[];
  where: Where;
  /** Null as long as there is nothing to choose. */
  onChooseAll: (() => Promise<void>) | null;
  /** Nothing is chosen any more. */
  onDone: () => void;
};

/** What can be done with all that is chosen. */
export function SelectionBar({ ids, noteIds = [], where, onChooseAll, onDone }: SelectionBarProps) {
  const colours = useColours();
  const router = useRouter();
  const { batch } = useChanges();
  const showDone = useShowDone();
  const choosing = useMutation({ mutationFn: async () => onChooseAll?.() });
  const [open, setOpen] = useClosable<'folder' | 'tag' | null>(null);
  const [tag, setTag] = useState('');
  const count = ids.length + noteIds.length;
  const isNone = count === 0;
  const act = (change: Omit<Batch, 'ids' | 'noteIds'>) =>
    batch.mutate(
      { ids: [...ids], noteIds: [...noteIds], ...change },
      {
        onSuccess: (done) => {
          showDone(done);
          setOpen(null);
          onDone();
        },
      },
    );
  const button = (label: string, change: Omit<Batch, 'ids' | 'noteIds'>, isBold = false) => (
    <WordButton label={label} isBold={isBold} disabled={isNone || batch.isPending} onPress={() => act(change)} />
  );
  return (
    <View
      role="toolbar"
      aria-label="Actions for selected items"
      style={{
        borderWidth: 1,
        borderColor: colours.ink,
        borderRadius: 4,
        backgroundColor: colours.sheet,
        paddingHorizontal: 14,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap' }}>
        <Type role="status" style={{ marginRight: 18 }}>
          {isNone ? 'Tick items to select them' : `${count} selected`}
        </Type>
        <WordButton
          label="Select all"
          disabled={!onChooseAll || choosing.isPending}
          onPress={() => choosing.mutate()}
        />
        <WordButton label="Close" onPress={onDone} style={{ marginLeft: 'auto', marginRight: 0 }} />
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {where === 'tray' && button('File as suggested', { asSuggested: true }, true)}
        {where === 'bin' ? (
          button('Restore', { isBinned: false }, true)
        ) : (
          <>
            <WordButton
              label="Move to"
              disabled={isNone}
              aria-expanded={open === 'folder'}
              onPress={() => setOpen(open === 'folder' ? null : 'folder')}
            />
            <WordButton
              label="Add tag"
              disabled={isNone}
              aria-expanded={open === 'tag'}
              onPress={() => setOpen(open === 'tag' ? null : 'tag')}
            />
            {button('Add to favourites', { isFavourite: true })}
            {where === 'archive' ? button('Unarchive', { isArchived: false }) : button('Archive', { isArchived: true })}
            <WordButton
              label="Make a write-up"
              // A write-up is made of what was said.
              disabled={isNone || noteIds.length > 0}
              onPress={() => router.push({ pathname: '/together', params: scopeAddress({ recordingIds: [...ids] }) })}
            />
            <WordButton
              label="Export"
              disabled={isNone}
              onPress={() =>
                router.push(
                  exportAddress([
                    ...ids.map((id) => ({ kind: 'recording' as const, id })),
                    ...noteIds.map((id) => ({ kind: 'note' as const, id })),
                  ]),
                )
              }
            />
            {button('Move to bin', { isBinned: true })}
          </>
        )}
      </View>
      {noteIds.length > 0 && where !== 'bin' && (
        <Type size="tiny" tone="faint" style={{ paddingBottom: 12 }}>
          Write-ups are made from recordings. To make one, deselect the notes.
        </Type>
      )}
      {open === 'folder' && (
        <View style={{ paddingBottom: 12 }}>
          <FolderChips label="Move to" chosen={null} onChoose={(folderId) => act({ folderId, isFiled: true })} />
        </View>
      )}
      {open === 'tag' && (
        <View style={{ paddingBottom: 12 }}>
          <LineEntry
            label="Tag for all selected items"
            action="Add tag"
            value={tag}
            onChange={setTag}
            onSubmit={() => act({ addTags: [tag.trim()] })}
            maxLength={60}
            autoFocus
          />
        </View>
      )}
      {batch.error && <Failure error={batch.error} />}
      {choosing.error && <Failure error={choosing.error} />}
    </View>
  );
}
