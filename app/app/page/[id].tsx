import { useLocalSearchParams } from 'expo-router';
import { useRecording } from '../../api/queries';
import { PageView } from '../../features/page/pageView';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

/** A recording to read and print, without its sound. */
export default function PageScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error, refetch } = useRecording(id);
  if (data) return <PageView recording={data} />;
  return <Page>{error ? <Failure error={error} onRetry={() => void refetch()} /> : <Loading />}</Page>;
}
