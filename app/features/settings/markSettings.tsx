import {
  MARK_SHAPES,
  MARK_TONES,
  type MarkKindSetting,
  TODO_MARK,
  USUAL_MARK_KINDS,
} from '@immeld/core/contract/markKinds';
import { useState } from 'react';
import { View } from 'react-native';
import { v4 as newId } from 'uuid';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { LineEntry } from '../../ui/lineEntry';
import { Shape } from '../../ui/mark';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useClosable } from '../../ui/useClosable';

const MAX_OFFERED = 9;

/** The kinds of marks: renamed, added, and taken out of the choice. */
export function MarkSettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const show = useUndoBar();
  const [name, setName] = useState('');
  if (!data) return null;
  const kinds = data.markKinds;
  const offered = kinds.filter((k) => !k.isHidden);
  const keep = (next: MarkKindSetting[], said: string) =>
    change.mutate({ markKinds: next }, { onSuccess: () => show(said, () => change.mutate({ markKinds: kinds })) });
  const set = (id: string, part: Partial<MarkKindSetting>, said: string) =>
    keep(
      kinds.map((k) => (k.id === id ? { ...k, ...part } : k)),
      said,
    );
  const add = () => {
    const label = name.trim();
    const free = <T,>(all: readonly T[], used: readonly T[]) => all.find((v) => !used.includes(v)) ?? all[0]!;
    const shape = free(MARK_SHAPES, offered.map((k) => k.shape)); // prettier-ignore
    const tone = free(MARK_TONES, offered.map((k) => k.tone)); // prettier-ignore
    const known = kinds.find((k) => k.isHidden && k.label.toLowerCase() === label.toLowerCase());
    setName('');
    if (known) return set(known.id, { isHidden: false }, `${known.label} is available again.`);
    keep([...kinds, { id: `own-${newId().slice(0, 8)}`, label, shape, tone, isHidden: false }], `${label} added.`);
  };
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Marks</Title>
      <Type tone="faint">
        The marks you can put beside the text. When you change a kind of mark, the marks you already made stay in place.
      </Type>
      {change.error && <Failure error={change.error} />}
      {offered.map((kind, i) => (
        <MarkRow key={kind.id} kind={kind} number={i + 1} onSet={(part, said) => set(kind.id, part, said)} />
      ))}
      {offered.length < MAX_OFFERED && kinds.length < 12 && (
        <LineEntry
          label="New kind of mark"
          action="Add mark"
          value={name}
          onChange={setName}
          onSubmit={add}
          maxLength={20}
        />
      )}
      {kinds !== USUAL_MARK_KINDS && kinds.some((k, i) => k.label !== USUAL_MARK_KINDS[i]?.label) && (
        <WordButton
          label="Restore the original marks"
          onPress={() =>
            keep(
              [
                ...USUAL_MARK_KINDS,
                ...kinds
                  .filter((k) => !USUAL_MARK_KINDS.some((u) => u.id === k.id))
                  .map((k) => ({ ...k, isHidden: true })),
              ],
              'The four original marks are restored.',
            )
          }
        />
      )}
    </View>
  );
}

type RowProps = {
  kind: MarkKindSetting;
  number: number;
  onSet: (part: Partial<MarkKindSetting>, said: string) => void;
};

function MarkRow({ kind, number, onSet }: RowProps) {
  const colours = useColours();
  const [isOpen, setOpen] = useClosable(false);
  const [label, setLabel] = useState(kind.label);
  const next = <T,>(all: readonly T[], now: T): T => all[(all.indexOf(now) + 1) % all.length]!;
  const rename = () => {
    onSet({ label: label.trim() }, `Renamed to ${label.trim()}.`);
    setOpen(false);
  };
  return (
    <View style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
      <Press
        label={`${kind.label}, key ${number}`}
        aria-expanded={isOpen}
        onPress={() => setOpen(!isOpen)}
        style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 14 }}
      >
        <Shape shape={kind.shape} fill={colours[kind.tone]} size={18} />
        <Type style={{ flex: 1 }}>{kind.label}</Type>
        <Type size="tiny" tone="faint">
          {number}
        </Type>
      </Press>
      {isOpen && (
        <View style={{ paddingBottom: 8 }}>
          <LineEntry
            label={`Name of ${kind.label}`}
            action="Rename"
            value={label}
            onChange={setLabel}
            onSubmit={rename}
            maxLength={20}
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton
              label="Change shape"
              onPress={() => onSet({ shape: next(MARK_SHAPES, kind.shape) }, 'Shape changed.')}
            />
            <WordButton
              label="Change colour"
              onPress={() => onSet({ tone: next(MARK_TONES, kind.tone) }, 'Colour changed.')}
            />
            {kind.id !== TODO_MARK && (
              <WordButton
                label="Remove"
                aria-label={`Remove ${kind.label}`}
                onPress={() => onSet({ isHidden: true }, `${kind.label} removed. Marks you already made stay.`)}
              />
            )}
          </View>
        </View>
      )}
    </View>
  );
}
