import {
  MIN_PASSPHRASE_LENGTH,
  type RestoreJob,
  type ScheduledBackupState,
} from '@immeld/core/contract/archiveEndpoints';
import { useState } from 'react';
import { View } from 'react-native';
import { useRestore, useScheduledBackups, useMakeBackup } from '../../api/archives';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { FrameButton, WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { Title, Type } from '../../ui/type';
import { ExportResult } from '../exports/exportResult';
import { restoredMessage, scheduledBackupsMessage } from './backupMessages';

/** Everything of the account in one file, and everything back from it. */
export function ArchiveSettings() {
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Backup</Title>
      <Type tone="faint">
        A backup holds all your recordings with their audio, notes, to-dos and settings in one file. You can restore it
        here or on another machine.
      </Type>
      <KeepPart />
      <BringBackPart />
      <KeptPart />
    </View>
  );
}

function KeepPart() {
  const make = useMakeBackup();
  const [passphrase, setPassphrase] = useState('');
  const isShort = passphrase !== '' && passphrase.length < MIN_PASSPHRASE_LENGTH;
  return (
    <>
      <Field
        label="Passphrase (optional)"
        value={passphrase}
        onChangeText={setPassphrase}
        secureTextEntry
        autoComplete="new-password"
        autoCapitalize="none"
        maxLength={1000}
      />
      <Type size="tiny" tone="faint">
        {isShort
          ? `At least ${MIN_PASSPHRASE_LENGTH} characters.`
          : 'With a passphrase, nobody can open the backup without it, and it cannot be recovered. Without one, anyone with the file can read it.'}
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <FrameButton
          label="Create a backup"
          isMain
          disabled={isShort || make.isPending}
          onPress={() => make.mutate(passphrase || null)}
        />
      </View>
      {make.error && <Failure error={make.error} />}
      {make.data && (
        <ExportResult
          key={make.data.id}
          id={make.data.id}
          isMailed={false}
          working={({ done }) => `Packing: ${done}%`}
        />
      )}
    </>
  );
}

function BringBackPart() {
  const { state, send, begin, stop } = useRestore();
  const isBusy = state.step === 'sending' || (state.step === 'working' && state.view.state === 'working');
  const choose = async () => {
    const file = await pickFile('.zip,.immeld');
    if (file) await send(file);
  };
  return (
    <View style={{ paddingTop: 12, gap: 8 }}>
      <Type tone="faint">Restoring adds what is missing here. Everything you already have stays as it is.</Type>
      {!isBusy && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <FrameButton label="Restore a backup" onPress={() => void choose()} />
        </View>
      )}
      {state.step === 'sending' && (
        <View role="status">
          <Type>{`Sending “${state.name}”: ${Math.floor(state.share * 100)}%`}</Type>
          <Progress label="Upload of the backup" share={state.share} height={8} />
          <WordButton label="Cancel" onPress={stop} />
        </View>
      )}
      {state.step === 'failed' && <Failure error={state.error} />}
      {state.step === 'working' && (
        <Returning view={state.view} onPassphrase={(passphrase) => void begin(state.view.id, passphrase)} />
      )}
    </View>
  );
}

function Returning({ view, onPassphrase }: { view: RestoreJob; onPassphrase: (passphrase: string) => void }) {
  const [passphrase, setPassphrase] = useState('');
  if (view.state === 'working') {
    return (
      <View role="status">
        <Type>{`Checking and restoring: ${view.percent}%`}</Type>
        <Progress label="Restored" share={view.percent / 100} height={8} />
      </View>
    );
  }
  if (view.result) return <Type role="status">{restoredMessage(view.result)}</Type>;
  return (
    <>
      <Type role="alert" tone="rowan">
        {view.problem}
      </Type>
      {view.needsPassphrase && (
        <>
          <Field
            label="Passphrase of this backup"
            value={passphrase}
            onChangeText={setPassphrase}
            secureTextEntry
            autoComplete="off"
            autoCapitalize="none"
            maxLength={1000}
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <FrameButton
              label="Open backup"
              isMain
              disabled={passphrase === ''}
              onPress={() => onPassphrase(passphrase)}
            />
          </View>
        </>
      )}
    </>
  );
}

function KeptPart() {
  const { data } = useScheduledBackups();
  if (!data?.isOn) return null;
  return <KeptLine kept={data} />;
}

function KeptLine({ kept }: { kept: ScheduledBackupState }) {
  return (
    <View style={{ paddingTop: 12 }}>
      <Type>{scheduledBackupsMessage(kept)}</Type>
      {kept.problem && (
        <Type role="alert" tone="rowan">
          {kept.problem} Immeld tries again automatically.
        </Type>
      )}
    </View>
  );
}
