import type { LanguageModel } from '@immeld/core/contract/languageModel';
import { useState } from 'react';
import { View } from 'react-native';
import { useLanguageModel, useLanguageModelChanges } from '../../api/languageModel';
import { useStatus } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Failure, Loading } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';

const STAND_IN_PATH = '/standins/language-model';

/** A language model of one's own: by its address, off to begin with. Nothing needs it. */
export function LanguageModelSettings() {
  const { data, error } = useLanguageModel();
  return (
    <View>
      <Title level={2}>Your own language model</Title>
      <Type tone="faint">
        Immeld makes write-ups on this machine with built-in methods. You can also connect a language model. Then the
        text of a recording is sent to its address, and whoever runs the model may charge for it.
      </Type>
      {error && <Failure error={error} />}
      {!data && !error && <Loading />}
      {data && <Connection key={data.address} model={data} />}
    </View>
  );
}

function Connection({ model }: { model: LanguageModel }) {
  const { data: status } = useStatus();
  const { change, trial } = useLanguageModelChanges();
  const [address, setAddress] = useState(model.address);
  const [name, setName] = useState(model.model);
  const [token, setToken] = useState('');
  const [seconds, setSeconds] = useState(String(model.timeoutSeconds));
  const save = () =>
    change.mutate(
      {
        ...{ address: address.trim(), model: name.trim() },
        ...(/^\d+$/.test(seconds) ? { timeoutSeconds: Number(seconds) } : {}),
        ...(token.trim() ? { token: token.trim() } : {}),
      },
      { onSuccess: () => setToken('') },
    );
  return (
    <View style={{ gap: 6, paddingTop: 8 }}>
      {model.isStandIn && (
        <Type tone="ochre">This is the demo’s stand-in: a simulated model that understands nothing.</Type>
      )}
      <Field
        label="Address, for example http://localhost:8080/v1"
        value={address}
        onChangeText={setAddress}
        inputMode="url"
        autoCapitalize="none"
        maxLength={500}
      />
      <Field label="Name of the model" value={name} onChangeText={setName} autoCapitalize="none" maxLength={100} />
      <Field
        label={model.hasToken ? 'New token (one is saved)' : 'Token (if required)'}
        value={token}
        onChangeText={setToken}
        secureTextEntry
        autoCapitalize="none"
        maxLength={500}
      />
      <Field
        label="Stop waiting after this many seconds"
        value={seconds}
        onChangeText={setSeconds}
        inputMode="numeric"
        maxLength={3}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Save" isBold disabled={change.isPending} onPress={save} />
        <WordButton
          label={trial.isPending ? 'Testing…' : 'Test'}
          disabled={!model.address || trial.isPending}
          onPress={() => trial.mutate()}
        />
        {model.hasToken && <WordButton label="Remove token" onPress={() => change.mutate({ token: '' })} />}
        {status?.isDemo && !model.isStandIn && (
          <WordButton
            label="Use the stand-in"
            onPress={() =>
              change.mutate({ address: `${window.location.origin}${STAND_IN_PATH}`, model: 'stand-in', isOn: true })
            }
          />
        )}
      </View>
      {trial.data && <Type role="status">Answer: {trial.data.answer}</Type>}
      {(change.error ?? trial.error) && <Failure error={(change.error ?? trial.error)!} />}
      <Choice
        role="switch"
        label="Offer for write-ups"
        hint="You choose it for each write-up. Before the first time, you see what would be sent."
        isOn={model.isOn}
        onPress={() => change.mutate({ isOn: !model.isOn })}
      />
    </View>
  );
}
