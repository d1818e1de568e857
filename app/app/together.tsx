import { useLocalSearchParams } from 'expo-router';
import { Several } from '../features/writeUps/several';
import { scopeFrom } from '../features/writeUps/scopeAddress';

/** A write-up of several recordings: chosen ones, or all of a folder, tag, person, project or time. */
export default function TogetherScreen() {
  const address = useLocalSearchParams<Record<string, string>>();
  return <Several key={JSON.stringify(address)} asked={scopeFrom(address)} />;
}
