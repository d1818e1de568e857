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
        title="There is nothing at this address"
        action={<WordButton label="Go to the day" onPress={() => router.navigate('/')} />}
      >
        It may be mistyped, or what was here has been removed. Your recordings are safe.
      </Empty>
    </Page>
  );
}
