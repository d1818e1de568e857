import { SHORTEST_PASSPHRASE, type BringingBack, type KeptArchives } from '@immeld/core/contract/archiveEndpoints';
import { useState } from 'react';
import { View } from 'react-native';
import { useBringBack, useKeptArchives, useMakeArchive } from '../../api/archives';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { FrameButton, WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { Title, Type } from '../../ui/type';
import { MadeFile } from '../exports/madeFile';
import { broughtBackWords, keptWords } from './archiveWords';

/** Everything of the account in one file, and everything back from it. */
export function ArchiveSettings() {
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Everything in one file</Title>
      <Type tone="faint">
        All recordings with their sound, notes, to-dos and settings. With this file everything comes back, on another
        machine too.
      </Type>
      <KeepPart />
      <BringBackPart />
      <KeptPart />
    </View>
  );
}

function KeepPart() {
  const make = useMakeArchive();
  const [passphrase, setPassphrase] = useState('');
  const isShort = passphrase !== '' && passphrase.length < SHORTEST_PASSPHRASE;
  return (
    <>
      <Field
        label="Passphrase, if nobody else is to read it"
        value={passphrase}
        onChangeText={setPassphrase}
        secureTextEntry
        autoComplete="new-password"
        autoCapitalize="none"
        maxLength={1000}
      />
      <Type size="tiny" tone="faint">
        {isShort
          ? `At least ${SHORTEST_PASSPHRASE} characters.`
          : 'Without it nobody can open the file, not even you. Left empty, whoever has the file can read it.'}
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <FrameButton
          label="Keep everything in one file"
          isMain
          disabled={isShort || make.isPending}
          onPress={() => make.mutate(passphrase || null)}
        />
      </View>
      {make.error && <Failure error={make.error} />}
      {make.data && (
        <MadeFile
          key={make.data.id}
          id={make.data.id}
          isMailed={false}
          working={({ done }) => `${done} % is packed.`}
        />
      )}
    </>
  );
}

function BringBackPart() {
  const { state, send, begin, stop } = useBringBack();
  const isBusy = state.step === 'sending' || (state.step === 'working' && state.view.state === 'working');
  const choose = async () => {
    const file = await pickFile('.zip,.immeld');
    if (file) await send(file);
  };
  return (
    <View style={{ paddingTop: 12, gap: 8 }}>
      <Type tone="faint">From such a file comes back what is missing here. What is here already stays as it is.</Type>
      {!isBusy && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <FrameButton label="Bring everything back" onPress={() => void choose()} />
        </View>
      )}
      {state.step === 'sending' && (
        <View role="status">
          <Type>{`“${state.name}” is being sent: ${Math.floor(state.share * 100)} %.`}</Type>
          <Progress label="Sent" share={state.share} height={8} />
          <WordButton label="Stop" onPress={stop} />
        </View>
      )}
      {state.step === 'failed' && <Failure error={state.error} />}
      {state.step === 'working' && (
        <Returning view={state.view} onPassphrase={(passphrase) => void begin(state.view.id, passphrase)} />
      )}
    </View>
  );
}

function Returning({ view, onPassphrase }: { view: BringingBack; onPassphrase: (passphrase: string) => void }) {
  const [passphrase, setPassphrase] = useState('');
  if (view.state === 'working') {
    return (
      <View role="status">
        <Type>{`It is checked and put in its place: ${view.percent} %.`}</Type>
        <Progress label="Brought back" share={view.percent / 100} height={8} />
      </View>
    );
  }
  if (view.result) return <Type role="status">{broughtBackWords(view.result)}</Type>;
  return (
    <>
      <Type role="alert" tone="rowan">
        {view.problem}
      </Type>
      {view.needsPassphrase && (
        <>
          <Field
            label="Passphrase of this file"
            value={passphrase}
            onChangeText={setPassphrase}
            secureTextEntry
            autoComplete="off"
            autoCapitalize="none"
            maxLength={1000}
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <FrameButton label="Open it" isMain disabled={passphrase === ''} onPress={() => onPassphrase(passphrase)} />
          </View>
        </>
      )}
    </>
  );
}

function KeptPart() {
  const { data } = useKeptArchives();
  if (!data?.isOn) return null;
  return <KeptLine kept={data} />;
}

function KeptLine({ kept }: { kept: KeptArchives }) {
  return (
    <View style={{ paddingTop: 12 }}>
      <Type>{keptWords(kept)}</Type>
      {kept.problem && (
        <Type role="alert" tone="rowan">
          {kept.problem} It is tried again by itself.
        </Type>
      )}
    </View>
  );
}
