import type { NewSlip } from '@immeld/core/contract/slips';
import { clockTime } from '@immeld/core/formats/times';
import { useState } from 'react';
import { View } from 'react-native';
import { useCapture } from '../../offline/deviceContext';
import { LineEntry } from '../../ui/lineEntry';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { Press, WordButton } from '../../ui/press';
import { SLIP_NAMES } from '../../ui/slipNames';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useClosable } from '../../ui/useClosable';

/** What the recorder itself says in the margin: a pause, or sound that is missing. */
export function RecorderSlip({ slip }: { slip: NewSlip }) {
  const colours = useColours();
  const isGap = slip.kind === 'gap';
  return (
    <View
      style={{
        ...{ flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 48, marginLeft: 20, marginVertical: 4 },
        ...{ borderLeftWidth: 2, borderLeftColor: isGap ? colours.ochre : colours.rule, paddingLeft: 12 },
      }}
    >
      <Type style={{ flex: 1 }} tone={isGap ? 'ink' : 'faint'}>
        {slip.text}
      </Type>
      <Type size="tiny" tone="faint">
        {clockTime(slip.startMs)}
      </Type>
    </View>
  );
}

/** A slip while recording; pressed, it can be reworded, given another mark or taken away. */
export function NowSlip({ slip }: { slip: NewSlip }) {
  const colours = useColours();
  const engine = useCapture();
  const show = useUndoBar();
  const [isOpen, setOpen] = useClosable(false);
  const [text, setText] = useState(slip.text);
  const kinds = useMarkKinds();
  const name = slip.mark ? kinds.of(slip.mark).label : SLIP_NAMES[slip.kind];
  const keep = () => {
    engine.changeSlip(slip.id, { text });
    setOpen(false);
  };
  const remove = () => {
    engine.removeSlip(slip.id);
    show(`${name} removed.`, () => {
      const { kind, mark, startMs } = slip;
      engine.addSlip({ kind, startMs, text: slip.text, ...(mark ? { mark } : {}) });
    });
  };
  return (
    <View
      style={{ marginLeft: 20, marginVertical: 4, borderLeftWidth: 2, borderLeftColor: colours.rule, paddingLeft: 12 }}
    >
      <Press
        label={`${name} at ${clockTime(slip.startMs)}${slip.text ? `: ${slip.text}` : ''}`}
        aria-expanded={isOpen}
        onPress={() => setOpen(!isOpen)}
        style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 10 }}
      >
        {slip.mark && <MarkShape kind={slip.mark} />}
        <Type style={{ flex: 1 }} isBold={slip.kind === 'heading'}>
          {slip.text || name}
        </Type>
        <Type size="tiny" tone="faint">
          {slip.text ? `${name} · ` : ''}
          {clockTime(slip.startMs)}
        </Type>
      </Press>
      {isOpen && (
        <View style={{ paddingBottom: 6 }}>
          <LineEntry label="Words" action="Save" value={text} onChange={setText} onSubmit={keep} maxLength={5000} />
          {slip.mark && (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
              {kinds.offered.map(({ id: mark, label }) => (
                <Press
                  key={mark}
                  label={`Change to: ${label}`}
                  aria-pressed={mark === slip.mark}
                  onPress={() => engine.changeSlip(slip.id, { mark })}
                  style={{ alignItems: 'center', opacity: mark === slip.mark ? 1 : 0.6 }}
                >
                  <MarkShape kind={mark} />
                </Press>
              ))}
            </View>
          )}
          <WordButton label="Remove" onPress={remove} />
        </View>
      )}
    </View>
  );
}
