import { useLocalSearchParams } from 'expo-router';
import { Several } from '../features/writeUps/several';
import { scopeFrom } from '../features/writeUps/scopeAddress';
import { Empty } from '../ui/notice';
import { Page } from '../ui/shell';

/** A write-up of several recordings: chosen ones, or all of a folder, tag, person, project or time. */
export default function TogetherScreen() {
  const address = useLocalSearchParams<Record<string, string>>();
  const asked = scopeFrom(address);
  if (!asked) {
    return (
      <Page>
        <Empty title="This address does not name any recordings">
          The address may be cut off or mistyped. Select recordings on a shelf, then choose “Make a write-up”.
        </Empty>
      </Page>
    );
  }
  return <Several key={JSON.stringify(address)} asked={asked} />;
}
