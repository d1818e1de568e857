import type { Folder } from '@immeld/core/contract/shelves';
import { View } from 'react-native';
import { useShelves } from '../../api/queries';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { inOrder } from './folderTree';

type FolderChipsProps = {
  label: string;
  chosen: string | null;
  onChoose: (id: string | null) => void;
  /** Folders that cannot be chosen, such as the one that is being moved. */
  without?: (folder: Folder) => boolean;
};

/** All shelves to choose one of; the chosen one pressed again is none. Folders inside others say where they lie. */
export function FolderChips({ label, chosen, onChoose, without }: FolderChipsProps) {
  const colours = useColours();
  const { data } = useShelves();
  const folders = inOrder(data?.folders ?? []).filter(({ folder }) => !without?.(folder));
  return (
    <View
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 6 }}
      role="radiogroup"
      aria-label={label}
    >
      {folders.map(({ folder, path }) => {
        const isOn = folder.id === chosen;
        return (
          <Press
            key={folder.id}
            role="radio"
            aria-checked={isOn}
            label={folder.name}
            onPress={() => onChoose(isOn ? null : folder.id)}
            style={{
              ...{ borderWidth: 1, borderRadius: 4, borderColor: isOn ? colours.ink : colours.rule },
              ...{ borderBottomWidth: 3, borderBottomColor: colours[folder.tint] },
              ...{ paddingHorizontal: 12, backgroundColor: isOn ? colours.lit : colours.sheet },
            }}
          >
            {path.length > 0 && (
              <Type size="tiny" tone="faint">
                {path.join(' / ')}
              </Type>
            )}
            <Type>{folder.name}</Type>
          </Press>
        );
      })}
    </View>
  );
}
