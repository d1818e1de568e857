import type { MarkKind } from '@immeld/core/contract/slips';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useCapture } from '../../offline/deviceContext';
import { Field } from '../../ui/field';
import { MARKS, MarkShape } from '../../ui/mark';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { ConsentChoices } from './consentCard';

const KINDS = Object.keys(MARKS) as MarkKind[];

/** Everything that can be put into the margin while somebody speaks, in reach of one thumb. */
export function MarkPad({ isWide }: { isWide: boolean }) {
  const colours = useColours();
  const engine = useCapture();
  const [text, setText] = useState('');
  /** A slip belongs to the second at which one began to write it. */
  const begunAt = useRef<number | null>(null);
  const picture = usePicture();

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

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement).closest('input, textarea') || event.ctrlKey || event.metaKey) return;
      const kind = KINDS.find((k) => MARKS[k].key === event.key);
      if (kind) engine.addSlip({ kind: 'mark', mark: kind });
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [engine]);

  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', gap: 6 }} role="group" aria-label="Marks">
        {KINDS.map((kind) => (
          <Press
            key={kind}
            label={`Mark: ${MARKS[kind].label}`}
            onPress={() => keep('mark', kind)}
            style={{
              ...{ flex: 1, alignItems: 'center', gap: 5, paddingVertical: 9 },
              ...{ borderWidth: 1, borderColor: colours.rule, borderRadius: 4, backgroundColor: colours.sheet },
            }}
          >
            <MarkShape kind={kind} size={18} />
            <Type size="tiny" style={{ textAlign: 'center' }}>
              {MARKS[kind].label}
            </Type>
            {isWide && (
              <Type size="tiny" tone="faint">
                {MARKS[kind].key}
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
            <WordButton label="Keep as slip" isBold onPress={() => keep('note')} />
            <WordButton label="As to-do" onPress={() => keep('mark', 'to-do')} />
            <WordButton label="As a new part" onPress={() => keep('heading')} />
          </>
        ) : (
          <>
            <WordButton label="New part" onPress={() => keep('heading')} />
            <WordButton label="Picture" onPress={picture} />
            <ConsentButton />
          </>
        )}
      </View>
    </View>
  );
}

/** Chooses a picture from the camera or the files of the device. */
function usePicture(): () => void {
  const engine = useCapture();
  return () => {
    const startMs = engine.state.elapsedMs;
    const field = document.createElement('input');
    Object.assign(field, { type: 'file', accept: 'image/png,image/jpeg,image/webp,image/gif' });
    field.onchange = () => {
      const file = field.files?.[0];
      if (file) engine.addSlip({ kind: 'picture', text: file.name, startMs }, file);
    };
    field.click();
  };
}

function ConsentButton() {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen) return <WordButton label="Consent" onPress={() => setOpen(true)} />;
  return <ConsentChoices onDone={() => setOpen(false)} />;
}
