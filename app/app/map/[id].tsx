import { useLocalSearchParams } from 'expo-router';
import { useTopicMap } from '../../api/templates';
import { MapPage } from '../../features/map/mapPage';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

/** The topics of a recording as a picture. */
export default function MapScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error, refetch } = useTopicMap(id);
  if (data) return <MapPage key={id} recordingId={id} map={data} />;
  return <Page>{error ? <Failure error={error} onRetry={() => void refetch()} /> : <Loading />}</Page>;
}
