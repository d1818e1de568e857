import type { Recording } from '@immeld/core/contract/recordings';
import { type Sheet, type Template, WORDINGS } from '@immeld/core/contract/templates';
import { writeUpAsMarkdown } from '@immeld/core/writeup/asMarkdown';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useSheetChanges, useSheets, useTemplates } from '../../api/templates';
import { useShowDone } from '../../ui/doing';
import { Failure, Loading } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { SheetText } from './sheetText';

type SheetsProps = { recording: Recording; onPlay: (ms: number) => void };

/** Write-ups of a recording in pencil, and the templates by which more can be made. */
export function Sheets({ recording, onPlay }: SheetsProps) {
  const { data, error } = useSheets(recording.id);
  const { make } = useSheetChanges(recording.id);
  const [isChoosing, setChoosing] = useState(false);
  if (recording.state !== 'ready') return null;
  return (
    <View style={{ gap: 12 }}>
      {error && <Failure error={error} />}
      {data?.items.map((sheet) => (
        <SheetOf key={sheet.id} sheet={sheet} recording={recording} onPlay={onPlay} />
      ))}
      {make.error && <Failure error={make.error} />}
      {isChoosing ? (
        <TemplateChoice
          isBusy={make.isPending}
          onChoose={(template) => make.mutate(template, { onSuccess: () => setChoosing(false) })}
          onClose={() => setChoosing(false)}
        />
      ) : (
        <WordButton label="Make a write-up" isBold onPress={() => setChoosing(true)} />
      )}
    </View>
  );
}

type ChoiceProps = { isBusy: boolean; onChoose: (template: Template) => void; onClose: () => void };

function TemplateChoice({ isBusy, onChoose, onClose }: ChoiceProps) {
  const colours = useColours();
  const router = useRouter();
  const { data, error } = useTemplates();
  return (
    <PencilBox isInk>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Title level={2}>By which template?</Title>
        <WordButton label="Close" onPress={onClose} style={{ marginLeft: 'auto', marginRight: 0 }} />
      </View>
      {error && <Failure error={error} />}
      {!data && !error && <Loading />}
      {data?.items.map(({ id, template, isShipped }) => (
        <Press
          key={id}
          label={`${template.name}. ${template.about}`}
          disabled={isBusy}
          onPress={() => onChoose(template)}
          style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingVertical: 8 }}
        >
          <Type isBold>
            {template.name}
            {!isShipped && (
              <Type size="tiny" tone="faint">
                {'  '}
                your own
              </Type>
            )}
          </Type>
          {template.about !== '' && (
            <Type size="small" tone="faint">
              {template.about}
            </Type>
          )}
        </Press>
      ))}
      <WordButton
        label="Change or copy templates"
        onPress={() => router.push('/templates')}
        style={{ paddingTop: 6 }}
      />
    </PencilBox>
  );
}

type SheetOfProps = { sheet: Sheet; recording: Recording; onPlay: (ms: number) => void };

function SheetOf({ sheet, recording, onPlay }: SheetOfProps) {
  const router = useRouter();
  const showDone = useShowDone();
  const { again, drop, keep } = useSheetChanges(recording.id);
  const [isChanging, setChanging] = useState(false);
  const [isCopied, setCopied] = useState(false);
  const { template, sections } = sheet;
  const title = `${template.name}: ${recording.title ?? recording.suggestion.title ?? recording.fileName}`;
  const change = (next: Template) => again.mutate({ id: sheet.id, template: next });
  return (
    <View role="article" aria-label={template.name}>
      <PencilBox>
        <Type size="tiny" tone="faint">
          Write-up in pencil
        </Type>
        <Title level={2}>{template.name}</Title>
        <View style={{ paddingVertical: 6 }}>
          <SheetText sections={sections} onPlay={onPlay} />
        </View>
        {isChanging && <Lengths template={template} onChange={change} />}
        {(again.error ?? keep.error ?? drop.error) && <Failure error={(again.error ?? keep.error ?? drop.error)!} />}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton
            label="Keep as a note"
            isBold
            disabled={keep.isPending}
            onPress={() => {
              // The sheet is gone from the page before this is answered.
              keep.mutateAsync(sheet.id).then(
                ({ noteId, done }) => {
                  showDone(done);
                  router.push({ pathname: '/notes/[id]', params: { id: noteId } });
                },
                () => undefined,
              );
            }}
          />
          <WordButton
            label={isChanging ? 'Lengths are right' : 'Other length or wording'}
            aria-expanded={isChanging}
            onPress={() => setChanging(!isChanging)}
          />
          <WordButton
            label={isCopied ? 'Copied' : 'Copy'}
            onPress={() =>
              void navigator.clipboard.writeText(writeUpAsMarkdown(title, sections)).then(() => setCopied(true))
            }
          />
          <WordButton
            label="Drop"
            onPress={() => {
              drop.mutateAsync(sheet.id).then(showDone, () => undefined);
            }}
            style={{ marginLeft: 'auto', marginRight: 0 }}
          />
        </View>
      </PencilBox>
    </View>
  );
}

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
        nameOf={(w) => w}
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
