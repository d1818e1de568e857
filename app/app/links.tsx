import { useLocalSearchParams } from 'expo-router';
import { ScrollView } from 'react-native';
import { useShareLinks } from '../api/shareLinks';
import { itemsFromText } from '../features/exports/exportNames';
import { LinkRow } from '../features/sharing/linkRow';
import { NewLink } from '../features/sharing/newLink';
import { Back } from '../ui/back';
import { Empty, Failure, Loading } from '../ui/notice';
import { Page } from '../ui/shell';
import { Title } from '../ui/type';

/** Links by which others read recordings and notes: a new one for what the address names, and all that were made. */
export default function LinksScreen() {
  const { item: text = '' } = useLocalSearchParams<{ item?: string }>();
  const [item] = itemsFromText(text);
  const { data, error, refetch } = useShareLinks();
  const links = data?.items.filter((l) => !item || l.item.id === item.id);
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 8, paddingBottom: 40 }}>
        <Back home="/shelves" />
        <Title>Share links</Title>
        {error && <Failure error={error} onRetry={() => void refetch()} />}
        {!links && !error && <Loading />}
        {links?.map((link) => (
          <LinkRow key={link.id} link={link} />
        ))}
        {item && <NewLink key={text} item={item} />}
        {links?.length === 0 && !item && (
          <Empty title="Nothing shared yet">
            To share a recording or note, open it and choose “Share by link” under “About”. Your links are listed here,
            with the date each was last opened.
          </Empty>
        )}
      </ScrollView>
    </Page>
  );
}
