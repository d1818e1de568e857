import { useRouter } from 'expo-router';
import { Empty } from '../ui/notice';
import { WordButton } from '../ui/press';
import { UnseenTitle } from '../ui/type';
import { Page } from '../ui/shell';

export default function NotFoundScreen() {
  const router = useRouter();
  return (
    <Page>
      <UnseenTitle>Nothing here</UnseenTitle>
      <Empty
        title="This page does not exist"
        action={<WordButton label="Go to Day" onPress={() => router.navigate('/')} />}
      >
        The address may be mistyped, or the item may have been removed. Your recordings are safe.
      </Empty>
    </Page>
  );
}
