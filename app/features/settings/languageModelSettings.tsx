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
      <Title level={2}>A language model of your own</Title>
      <Type tone="faint">
        Write-ups are made on this machine by built-in methods. If you have a language model that answers at an address,
        it can write some of them. Then what was said leaves this machine for that address, and whoever runs it may ask
        money for it.
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
        <Type tone="ochre">This is the stand-in of the demo: a simulated model that understands nothing.</Type>
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
        label={model.hasToken ? 'Another token (one is kept)' : 'Token, if it needs one'}
        value={token}
        onChangeText={setToken}
        secureTextEntry
        autoCapitalize="none"
        maxLength={500}
      />
      <Field
        label="Give up after so many seconds of silence"
        value={seconds}
        onChangeText={setSeconds}
        inputMode="numeric"
        maxLength={3}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Keep" isBold disabled={change.isPending} onPress={save} />
        <WordButton
          label={trial.isPending ? 'Asking …' : 'Try it'}
          disabled={!model.address || trial.isPending}
          onPress={() => trial.mutate()}
        />
        {model.hasToken && <WordButton label="Forget the token" onPress={() => change.mutate({ token: '' })} />}
        {status?.isDemo && !model.isStandIn && (
          <WordButton
            label="Use the stand-in"
            onPress={() =>
              change.mutate({ address: `${window.location.origin}${STAND_IN_PATH}`, model: 'stand-in', isOn: true })
            }
          />
        )}
      </View>
      {trial.data && <Type role="status">It answers: {trial.data.answer}</Type>}
      {(change.error ?? trial.error) && <Failure error={(change.error ?? trial.error)!} />}
      <Choice
        role="switch"
        label="Offer it for write-ups"
        hint="You choose it for each write-up, and see what is sent before the first time."
        isOn={model.isOn}
        onPress={() => change.mutate({ isOn: !model.isOn })}
      />
    </View>
  );
}
