import { DICTATION_COMMANDS, type DictationCommand } from '@immeld/core/contract/dictationCommands';
import { COMMAND_PHRASES } from '@immeld/core/transcript/dictation';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { Choice } from '../../ui/choice';
import { Failure } from '../../ui/notice';
import { Title, Type } from '../../ui/type';

const EFFECTS: Record<DictationCommand, string> = {
  'full-stop': 'writes .',
  comma: 'writes ,',
  'question-mark': 'writes ?',
  'exclamation-mark': 'writes !',
  colon: 'writes :',
  semicolon: 'writes ;',
  dash: 'writes –',
  'open-bracket': 'writes (',
  'close-bracket': 'writes )',
  'open-quote': 'writes “',
  'close-quote': 'writes ”',
  'new-paragraph': 'starts a new paragraph',
  'strike-that': 'removes the last sentence',
};

/** The commands that are obeyed in a dictation. */
export function DictationSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  if (!data) return null;
  const off = data.dictationOff;
  const flip = (command: DictationCommand) =>
    change.mutate({ dictationOff: DICTATION_COMMANDS.filter((c) => (c === command) !== off.includes(c)) });
  return (
    <View style={{ gap: 4 }}>
      <Title level={2}>Dictation</Title>
      <Type tone="faint">
        Turn on dictation while you record, or later under “About”. These words are then carried out instead of written.
        What you said is saved as a version.
      </Type>
      {change.error && <Failure error={change.error} />}
      {DICTATION_COMMANDS.map((command) => (
        <Choice
          key={command}
          role="switch"
          label={COMMAND_PHRASES[command].map((p) => `“${p}”`).join(' or ')}
          hint={EFFECTS[command]}
          isOn={!off.includes(command)}
          onPress={() => flip(command)}
        />
      ))}
    </View>
  );
}
