import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings, useShelves } from '../../api/queries';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';

/** What the person is called, and the shelf for what belongs nowhere else. */
export function PersonSettings() {
  const { data } = useSharedSettings();
  const { data: shelves } = useShelves();
  const { settings: change } = useChanges();
  const [typed, setTyped] = useState<string | null>(null);
  const folder = shelves?.folders.find((f) => f.id === data?.defaultFolderId);
  const save = () => {
    if (typed !== null) change.mutate({ ownName: typed.trim() }, { onSuccess: () => setTyped(null) });
  };
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>You</Title>
      {change.error && <Failure error={change.error} />}
      {data && (
        <>
          <LineEntry
            label="Your name"
            action="Save"
            value={typed ?? data.ownName}
            onChange={setTyped}
            onSubmit={save}
            maxLength={60}
          />
          <Type size="tiny" tone="faint">
            Immeld uses it to tell which speaker is you, so that what you promise becomes your to-do.
          </Type>
          <Type>
            {folder ? `Default folder: ${folder.name}` : 'No default folder. Set one on the page of a folder.'}
          </Type>
          {folder && (
            <WordButton label="Remove default folder" onPress={() => change.mutate({ defaultFolderId: null })} />
          )}
        </>
      )}
    </View>
  );
}
