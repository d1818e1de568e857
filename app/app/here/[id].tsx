import { useLocalSearchParams } from 'expo-router';
import { HerePage } from '../../features/here/herePage';

/** A recording that is on this device and not on the server yet. */
export default function HereScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <HerePage key={id} captureId={id} />;
}
