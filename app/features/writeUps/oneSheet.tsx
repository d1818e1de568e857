import { type Line, type Sheet, type Template, WORDINGS } from '@immeld/core/contract/templates';
import { writeUpAsMarkdown } from '@immeld/core/writeup/asMarkdown';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { WORDING_NAMES } from './templateNames';
import type { SheetChanges } from '../../api/templates';
import { Choice } from '../../ui/choice';
import { CopyButton } from '../../ui/copyButton';
import { useShowDone, whenDone } from '../../ui/doing';
import { Failure, Loading, useIsSlow } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { SheetText } from './sheetText';

type OneSheetProps = {
  sheet: Sheet;
  /** What it is made of, for its title when it is taken along. */
  of: string;
  changes: SheetChanges;
  /** It was just made, and is brought into view. */
  isNew?: boolean;
  /** Why it is not the language model's, where that was asked for. */
  problem?: string | null;
  onPlay: (line: Line) => void;
};

/** A write-up in pencil: kept as a note, made again in another way, or dropped. */
export function OneSheet({ sheet, of, changes: { again, drop, keep }, isNew, problem, onPlay }: OneSheetProps) {
  const router = useRouter();
  const showDone = useShowDone();
  const { template, sections } = sheet;
  const [isChanging, setChanging] = useState(false);
  const [kept, setKept] = useState<readonly number[]>(() => keptIn(sheet));
  const [acceptsTodos, setAcceptsTodos] = useState(false);
  const todoCount = new Set(
    sections.flatMap((s) => s.groups.flatMap((g) => g.lines.flatMap((l) => (l.todoId && !l.isDone ? l.todoId : [])))),
  ).size;
  const title = `${template.name}: ${of}`;
  const isSlow = useIsSlow(again.isPending && again.variables.id === sheet.id);
  const change = (next: Template) =>
    again.mutate({ id: sheet.id, template: next, kept: [...kept] }, { onSuccess: (made) => setKept(keptIn(made)) });
  const toggle = (at: number) => setKept(kept.includes(at) ? kept.filter((k) => k !== at) : [...kept, at]);
  const box = useRef<View>(null);
  useEffect(() => {
    if (isNew) (box.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: 'start' });
  }, [isNew]);
  return (
    <View ref={box} role="article" aria-label={template.name}>
      <PencilBox>
        {problem && (
          <Type role="alert" tone="rowan">
            {problem} Immeld made this write-up with its built-in method instead.
          </Type>
        )}
        <Type size="tiny" tone="faint">
          {sheet.isByModel ? 'Suggested write-up, by your language model' : 'Suggested write-up (in pencil)'}
        </Type>
        <Title level={2}>{template.name}</Title>
        <View style={{ paddingVertical: 6 }}>
          <SheetText
            sections={sections}
            onPlay={onPlay}
            {...(isChanging && sections.length > 1 ? { kept: { numbers: kept, toggle } } : {})}
          />
        </View>
        {isSlow && <Loading label="Making a new version" />}
        {isChanging && <Lengths template={template} onChange={change} />}
        {(again.error ?? keep.error ?? drop.error) && <Failure error={(again.error ?? keep.error ?? drop.error)!} />}
        {todoCount > 0 && (
          <Choice
            role="switch"
            label={todoCount === 1 ? 'Also accept its to-do' : `Also accept its ${todoCount} to-dos`}
            hint="otherwise the note lists them as proposed"
            isOn={acceptsTodos}
            onPress={() => setAcceptsTodos(!acceptsTodos)}
          />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton
            label="Save as a note"
            isBold
            disabled={keep.isPending}
            onPress={() => {
              whenDone(keep.mutateAsync({ id: sheet.id, acceptsTodos }), ({ noteId, done }) => {
                showDone(done);
                router.push({ pathname: '/notes/[id]', params: { id: noteId } });
              });
            }}
          />
          <WordButton
            label={isChanging ? 'Done' : 'Change length or wording'}
            aria-expanded={isChanging}
            onPress={() => setChanging(!isChanging)}
          />
          <CopyButton label="Copy" text={writeUpAsMarkdown(title, sections)} />
          <WordButton
            label="Drop"
            onPress={() => whenDone(drop.mutateAsync(sheet.id), showDone)}
            style={{ marginLeft: 'auto', marginRight: 0 }}
          />
        </View>
      </PencilBox>
    </View>
  );
}

const keptIn = ({ sections }: Sheet): number[] => sections.flatMap((s, at) => (s.isKept ? [at] : []));

const STEPS: Record<Template['sections'][number]['unit'], number> = {
  sentences: 1,
  points: 1,
  words: 20,
  characters: 40,
};

/** How long each section may be; the write-up is made again at once. */
function Lengths({ template, onChange }: { template: Template; onChange: (next: Template) => void }) {
  const set = (at: number, most: number) =>
    onChange({ ...template, sections: template.sections.map((s, i) => (i === at ? { ...s, most } : s)) });
  return (
    <View style={{ paddingVertical: 4 }}>
      <OneOf
        label="Wording"
        options={WORDINGS}
        nameOf={(w) => WORDING_NAMES[w]}
        chosen={template.wording}
        onChoose={(wording) => onChange({ ...template, wording })}
      />
      {template.sections.map((section, i) => {
        if (section.most === null) return null;
        const { most, unit } = section;
        const name = section.heading || template.name;
        const step = STEPS[unit];
        return (
          <View key={i} style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Type style={{ flex: 1 }}>{name}</Type>
            <Press
              label={`${name}: shorter`}
              disabled={most <= step}
              onPress={() => set(i, most - step)}
              style={{ alignItems: 'center' }}
            >
              <Type size="large">−</Type>
            </Press>
            <Type size="small" style={{ minWidth: 110, textAlign: 'center' }}>
              at most {most} {most === 1 ? unit.replace(/s$/, '') : unit}
            </Type>
            <Press label={`${name}: longer`} onPress={() => set(i, most + step)} style={{ alignItems: 'center' }}>
              <Type size="large">+</Type>
            </Press>
          </View>
        );
      })}
    </View>
  );
}
