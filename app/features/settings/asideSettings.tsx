import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { LineEntry } from '../../ui/lineEntry';
import { Failure } from '../../ui/notice';
import { Title, Type } from '../../ui/type';

/** The phrases between which one speaks for oneself. */
export function AsideSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const [opening, setOpening] = useState('');
  const [closing, setClosing] = useState('');
  useEffect(() => {
    if (!data) return;
    setOpening(data.asideOpening);
    setClosing(data.asideClosing);
  }, [data]);
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Spoken asides</Title>
      <Type tone="faint">
        What you say between these two phrases becomes an aside: your own note in the margin, not part of the text.
      </Type>
      {change.error && <Failure error={change.error} />}
      {data && (
        <>
          <Choice
            role="switch"
            label="Recognise asides in my recordings"
            isOn={data.listensForAsides}
            onPress={() => change.mutate({ listensForAsides: !data.listensForAsides })}
          />
          <LineEntry
            label="An aside begins with"
            action="Save"
            value={opening}
            onChange={setOpening}
            onSubmit={() => change.mutate({ asideOpening: opening })}
            maxLength={60}
          />
          <LineEntry
            label="And ends with"
            action="Save"
            value={closing}
            onChange={setClosing}
            onSubmit={() => change.mutate({ asideClosing: closing })}
            maxLength={60}
          />
        </>
      )}
    </View>
  );
}
