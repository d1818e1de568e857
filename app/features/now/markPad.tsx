import type { MarkKind } from '@immeld/core/contract/slips';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { useCapture, useCaptureNow } from '../../offline/deviceContext';
import { Field } from '../../ui/field';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { PICTURE_TYPES, pickFile } from '../../ui/pickFile';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { ConsentChoices } from './consentCard';
import { useClosable } from '../../ui/useClosable';

/** Everything that can be put into the margin while somebody speaks, in reach of one thumb. */
export function MarkPad({ isWide }: { isWide: boolean }) {
  const colours = useColours();
  const engine = useCapture();
  const [text, setText] = useState('');
  /** A slip belongs to the second at which one began to write it. */
  const begunAt = useRef<number | null>(null);
  const picture = usePicture();
  const { offered } = useMarkKinds();

  const write = (next: string) => {
    if (next && !text) begunAt.current = engine.state.elapsedMs;
    setText(next);
  };
  const keep = (kind: 'note' | 'heading' | 'mark', mark?: MarkKind) => {
    const words = text.trim();
    engine.addSlip({
      kind,
      text: words,
      ...(mark ? { mark } : {}),
      ...(words && begunAt.current !== null ? { startMs: begunAt.current } : {}),
    });
    setText('');
  };

  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }} role="group" aria-label="Marks">
        {offered.map(({ id, label }, i) => (
          <Press
            key={id}
            label={`Mark: ${label}`}
            onPress={() => keep('mark', id)}
            style={{
              ...{ flexGrow: 1, flexBasis: '22%', alignItems: 'center', gap: 5, paddingVertical: 9 },
              ...{ borderWidth: 1, borderColor: colours.rule, borderRadius: 4, backgroundColor: colours.sheet },
            }}
          >
            <MarkShape kind={id} size={18} />
            <Type size="tiny" style={{ textAlign: 'center' }}>
              {label}
            </Type>
            {isWide && i < 9 && (
              <Type size="tiny" tone="faint">
                {i + 1}
              </Type>
            )}
          </Press>
        ))}
      </View>
      <Field
        label="Write a slip"
        value={text}
        onChangeText={write}
        onSubmitEditing={() => text.trim() && keep('note')}
        submitBehavior="submit"
        maxLength={5000}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', marginTop: -4 }}>
        {text.trim() ? (
          <>
            <WordButton label="Add as slip" isBold onPress={() => keep('note')} />
            <WordButton label="Make a to-do" onPress={() => keep('mark', 'to-do')} />
            <WordButton label="Start a new part" onPress={() => keep('heading')} />
          </>
        ) : (
          <>
            <WordButton label="Start a new part" onPress={() => keep('heading')} />
            <WordButton label="Add a picture" onPress={() => void picture()} />
            <ConsentButton />
            <DictationButton />
          </>
        )}
      </View>
    </View>
  );
}

/** Chooses a picture from the camera or the files of the device. */
function usePicture(): () => Promise<void> {
  const engine = useCapture();
  return async () => {
    const startMs = engine.state.elapsedMs;
    const file = await pickFile(PICTURE_TYPES);
    if (file) engine.addSlip({ kind: 'picture', text: file.name, startMs }, file);
  };
}

/** Spoken commands are done in this recording, or written as they are said. */
function DictationButton() {
  const engine = useCapture();
  const isDictation = useCaptureNow((now) => now.isDictation);
  return (
    <WordButton
      label={isDictation ? 'Dictation is on' : 'Dictation'}
      role="switch"
      aria-checked={isDictation}
      isBold={isDictation}
      onPress={() => engine.dictate(!isDictation)}
    />
  );
}

function ConsentButton() {
  const [isOpen, setOpen] = useClosable(false);
  if (!isOpen) return <WordButton label="Note consent" onPress={() => setOpen(true)} />;
  return <ConsentChoices onDone={() => setOpen(false)} />;
}
