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
      <Title level={2}>Imported files</Title>
      {change.error && <Failure error={change.error} />}
      {data && (
        <Choice
          role="switch"
          label="Keep the location stored in a file"
          hint="Phones often store where a memo or video was made. Turn this off to leave the location out."
          isOn={data.takesPlace}
          onPress={() => change.mutate({ takesPlace: !data.takesPlace })}
        />
      )}
    </View>
  );
}
