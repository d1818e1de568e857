import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { Title } from '../../ui/type';

/** What is taken from files beside their sound. */
export function ImportSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Files brought in</Title>
      {change.error && <Failure error={change.error} />}
      {data && (
        <Choice
          role="switch"
          label="Keep the place that a file states"
          hint="Phones write where a video or memo was made. Off, the place is not taken over."
          isOn={data.takesPlace}
          onPress={() => change.mutate({ takesPlace: !data.takesPlace })}
        />
      )}
    </View>
  );
}
