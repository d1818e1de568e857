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
            label="What you are called"
            action="Save"
            value={typed ?? data.ownName}
            onChange={setTyped}
            onSubmit={save}
            maxLength={60}
          />
          <Type size="tiny" tone="faint">
            So it is known which of the speakers is you: what you promise is yours to do.
          </Type>
          <Type>
            {folder ? `Default shelf: ${folder.name}` : 'No default shelf. A folder becomes it on its own page.'}
          </Type>
          {folder && <WordButton label="No default shelf" onPress={() => change.mutate({ defaultFolderId: null })} />}
        </>
      )}
    </View>
  );
}
