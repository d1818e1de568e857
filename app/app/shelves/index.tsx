import { TINTS, type Folder } from '@immeld/core/contract/shelves';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useChanges, useShelves } from '../../api/queries';
import { Empty, Failure, Loading } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { Page } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { LineEntry } from '../../ui/lineEntry';

export default function ShelvesScreen() {
  const colours = useColours();
  const router = useRouter();
  const { data, error, refetch } = useShelves();
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40 }}>
        <Title>Shelves</Title>
        {error && !data && <Failure error={error} onRetry={() => void refetch()} />}
        {!data && !error && <Loading />}
        {data && (
          <>
            {data.folders.length === 0 && (
              <Empty title="No folders yet">
                Folders are the shelves on which recordings are filed. Make the first one below.
              </Empty>
            )}
            {data.folders.map((folder) => (
              <FolderLine key={folder.id} folder={folder} depth={folder.parentId ? 1 : 0} />
            ))}
            <NewFolder />
            {data.tags.length > 0 && (
              <View style={{ paddingTop: 20, gap: 6 }}>
                <Title level={2}>Tags</Title>
                <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                  {data.tags.map((tag) => (
                    <Press
                      key={tag.name}
                      role="link"
                      label={`${tag.name}, ${tag.recordingCount}`}
                      onPress={() => router.push({ pathname: '/shelves/tag', params: { name: tag.name } })}
                      style={{
                        borderWidth: 1,
                        borderColor: colours.rule,
                        backgroundColor: colours.sheet,
                        borderRadius: 4,
                        paddingHorizontal: 14,
                        alignItems: 'center',
                      }}
                    >
                      <Type>
                        {tag.name}{' '}
                        <Type size="tiny" tone="faint">
                          {tag.recordingCount}
                        </Type>
                      </Type>
                    </Press>
                  ))}
                </View>
              </View>
            )}
            <View style={{ paddingTop: 20 }}>
              <WordButton label="Everything" onPress={() => router.push('/shelves/all')} />
              <WordButton
                label={data.binCount ? `Bin · ${data.binCount}` : 'Bin'}
                onPress={() => router.push('/shelves/bin')}
              />
            </View>
          </>
        )}
      </ScrollView>
    </Page>
  );
}

function FolderLine({ folder, depth }: { folder: Folder; depth: number }) {
  const colours = useColours();
  const router = useRouter();
  return (
    <Press
      role="link"
      label={`${folder.name}, ${folder.recordingCount} recordings`}
      onPress={() => router.push({ pathname: '/shelves/[id]', params: { id: folder.id } })}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'flex-start',
        gap: 12,
        minHeight: 60,
        paddingLeft: depth * 22,
        borderBottomWidth: 3,
        borderBottomColor: colours[folder.tint],
      }}
    >
      <Type size="body" face="text" style={{ flex: 1 }} numberOfLines={1}>
        {folder.name}
      </Type>
      <Type tone="faint">{folder.recordingCount}</Type>
    </Press>
  );
}

function NewFolder() {
  const { newFolder } = useChanges();
  const [name, setName] = useState('');
  const { data } = useShelves();
  const add = () => {
    const tint = TINTS[(data?.folders.length ?? 0) % TINTS.length]!;
    if (name.trim()) newFolder.mutate({ name: name.trim(), tint }, { onSuccess: () => setName('') });
  };
  return (
    <View style={{ paddingTop: 14 }}>
      <LineEntry label="New folder" action="Make it" value={name} onChange={setName} onSubmit={add} maxLength={80} />
      {newFolder.error && <Failure error={newFolder.error} />}
    </View>
  );
}
