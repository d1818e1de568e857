import { NO_CLEANING, isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { ExportItem } from '@immeld/core/contract/exportEndpoints';
import {
  CHOICES_OF,
  EXPORT_FORMATS,
  type ExportFormat,
  type ExportSettings,
  NAME_PARTS,
  SHAPES,
  SLIP_PLACES,
  SOUND_FORMATS,
  USUAL_EXPORTS,
} from '@immeld/core/contract/exports';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { call } from '../../api/call';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { useExportChanges, useExportPreview } from '../../api/exports';
import { useSettings } from '../../settings/settings';
import { Back } from '../../ui/back';
import { Choice } from '../../ui/choice';
import { countName } from '../../ui/counts';
import { copyFormatted } from '../../ui/clipboard';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { FrameButton, WordButton } from '../../ui/press';
import { useIsWide } from '../../ui/shell';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { FORMAT_NAMES, SHAPE_NAMES, SLIP_PLACE_NAMES, SWITCHES, choicesFor, withChoices } from './exportNames';
import { ExportResult } from './exportResult';

const SOUND_NAMES = { none: 'none', original: 'original', m4a: 'M4A', mp3: 'MP3', wav: 'WAV' } as const;
type Sound = keyof typeof SOUND_NAMES;
const NO_FORMAT = 'Choose a format or the audio.';

/** Recordings and notes as files: what goes along, in which form, under which names. */
export function ExportPage({ items }: { items: readonly ExportItem[] }) {
  const isWide = useIsWide();
  const { cleaning } = useSettings();
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const { make } = useExportChanges();
  const [draft, setDraft] = useState<ExportSettings | null>(null);
  const [looked, setLooked] = useState<ExportFormat | null>(null);
  const [sound, setSound] = useState<Sound>('none');
  const [isMarkedSound, setMarkedSound] = useState(false);
  const [isCleanSound, setCleanSound] = useState(false);
  const [isPreviewed, setPreviewed] = useState(false);
  const settings = draft ?? data?.exports ?? USUAL_EXPORTS;
  const { formats, pattern } = settings;
  const shown = looked && formats.includes(looked) ? looked : (formats[0] ?? null);
  const hasRecording = items.some((i) => i.kind === 'recording');

  const toggle = (format: ExportFormat) =>
    setDraft({
      ...settings,
      formats: formats.includes(format) ? formats.filter((f) => f !== format) : [...formats, format],
    });
  const start = () => {
    // What was chosen is there next time.
    if (draft) change.mutate({ exports: draft });
    make.mutate({
      items: [...items],
      files: formats.map((format) => ({ format, choices: choicesFor(settings, format) })),
      sound:
        sound === 'none' ? null : { format: sound, marksOnly: isMarkedSound, cleaning: isCleanSound ? cleaning : null },
      pattern,
    });
  };
  const nothing = formats.length === 0 && sound === 'none';
  return (
    <ScrollView contentContainerStyle={{ paddingTop: 8, paddingBottom: 40 }}>
      <Back home="/shelves" />
      <Title>Export</Title>
      <Type tone="faint">{countOf(items)}</Type>
      <View style={{ paddingTop: 12 }}>
        <Title level={2}>Formats</Title>
      </View>
      <View style={isWide ? { flexDirection: 'row', flexWrap: 'wrap' } : {}}>
        {EXPORT_FORMATS.map((format) => (
          <View key={format} style={isWide ? { width: '50%' } : {}}>
            <Choice
              role="switch"
              label={FORMAT_NAMES[format].label}
              hint={FORMAT_NAMES[format].hint}
              isOn={formats.includes(format)}
              onPress={() => toggle(format)}
            />
          </View>
        ))}
      </View>
      {hasRecording && (
        <>
          <OneOf
            label="Audio"
            options={['none', ...SOUND_FORMATS]}
            nameOf={(s) => SOUND_NAMES[s]}
            chosen={sound}
            onChoose={setSound}
          />
          {sound !== 'none' && (
            <>
              <Choice
                role="switch"
                label="Only marked passages, joined together"
                isOn={isMarkedSound}
                onPress={() => setMarkedSound(!isMarkedSound)}
              />
              <Choice
                role="switch"
                label="Cleaned up"
                hint={
                  isCleaning({ ...NO_CLEANING, ...cleaning })
                    ? 'uses the “Clean up audio” settings of the recording page'
                    : 'nothing is set yet; choose settings under “Clean up audio” on a recording'
                }
                isOn={isCleanSound}
                onPress={() => setCleanSound(!isCleanSound)}
              />
            </>
          )}
        </>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 20, paddingTop: 14 }}>
        <FrameButton
          label={
            items.length * formats.length > 1 || (sound !== 'none' && formats.length) ? 'Export files' : 'Export file'
          }
          isMain
          disabled={nothing || make.isPending || pattern.trim() === ''}
          onPress={start}
        />
        {shown && (
          <WordButton
            label={isPreviewed ? 'Close preview' : 'Show preview'}
            onPress={() => setPreviewed(!isPreviewed)}
          />
        )}
        {shown && items.length === 1 && <CopyIt item={items[0]!} format={shown} settings={settings} />}
      </View>
      {nothing && (
        <Type size="tiny" tone="faint">
          {NO_FORMAT}
        </Type>
      )}
      {make.error && <Failure error={make.error} />}
      {make.data && <ExportResult key={make.data.id} id={make.data.id} />}
      {shown && isPreviewed && <Preview item={items[0]!} format={shown} settings={settings} />}
      {shown && (
        <View role="group" aria-label={`Contents of ${FORMAT_NAMES[shown].label}`}>
          <View style={{ paddingTop: 18 }}>
            <Title level={2}>Contents</Title>
          </View>
          {formats.length > 1 && (
            <OneOf
              label="Format"
              options={formats}
              nameOf={(f) => FORMAT_NAMES[f].short}
              chosen={shown}
              onChoose={setLooked}
            />
          )}
          <Choices format={shown} settings={settings} onChange={setDraft} />
        </View>
      )}
      <View style={{ paddingTop: 18, paddingBottom: 6 }}>
        <Title level={2}>File names</Title>
      </View>
      <Field
        label="Name pattern"
        value={pattern}
        onChangeText={(text) => setDraft({ ...settings, pattern: text })}
        maxLength={120}
      />
      <Type size="tiny" tone="faint">
        Immeld fills in {NAME_PARTS.map((p) => `{${p}}`).join(' ')}.
      </Type>
    </ScrollView>
  );
}

function countOf(items: readonly ExportItem[]): string {
  const notes = items.filter((i) => i.kind === 'note').length;
  const recordings = items.length - notes;
  return [recordings && countName(recordings, 'recording'), notes && countName(notes, 'note')]
    .filter(Boolean)
    .join(' and ');
}

type ChoicesProps = {
  format: ExportFormat;
  settings: ExportSettings;
  onChange: (settings: ExportSettings) => void;
};

function Choices({ format, settings, onChange }: ChoicesProps) {
  const isWide = useIsWide();
  const choices = choicesFor(settings, format);
  const set = (part: Partial<typeof choices>) => onChange(withChoices(settings, format, part));
  const has = (key: keyof typeof choices) => CHOICES_OF[format].includes(key);
  return (
    <>
      {format === 'csv' && <Type tone="faint">All accepted to-dos of the exported items.</Type>}
      <View style={isWide ? { flexDirection: 'row', flexWrap: 'wrap' } : {}}>
        {SWITCHES.filter(({ key }) => has(key)).map(({ key, label, hint }) => (
          <View key={key} style={isWide ? { width: '50%' } : {}}>
            <Choice
              role="switch"
              label={label}
              {...(hint ? { hint } : {})}
              isOn={choices[key] === true}
              onPress={() => set({ [key]: choices[key] !== true })}
            />
          </View>
        ))}
      </View>
      {has('shape') && (
        <OneOf
          label="Text layout"
          options={SHAPES}
          nameOf={(s) => SHAPE_NAMES[s]}
          chosen={choices.shape}
          onChoose={(shape) => set({ shape })}
        />
      )}
      {has('slips') && (
        <OneOf
          label="Margin"
          options={SLIP_PLACES}
          nameOf={(s) => SLIP_PLACE_NAMES[s]}
          chosen={choices.slips}
          onChoose={(slips) => set({ slips })}
        />
      )}
    </>
  );
}

/** To the clipboard: formatted for what has pages, else as the text that it is. */
function CopyIt({ item, format, settings }: PreviewProps) {
  const [said, setSaid] = useState<string | null>(null);
  const hasPages = ['docx', 'pdf', 'html'].includes(format);
  const copy = async () => {
    setSaid(null);
    try {
      const body = { item, format, choices: choicesFor(settings, format) };
      const made = call('previewExport', { body }).then(({ isHtml, text, plain }) => ({
        plain,
        html: isHtml ? text : null,
      }));
      await copyFormatted(made, hasPages);
      setSaid('Copied.');
    } catch {
      setSaid('The browser blocked copying. Export the file instead.');
    }
  };
  return (
    <>
      <WordButton
        label={hasPages ? 'Copy with formatting' : format === 'md' ? 'Copy as Markdown' : 'Copy'}
        onPress={() => void copy()}
      />
      {said && (
        <Type role="status" size="tiny" tone="faint">
          {said}
        </Type>
      )}
    </>
  );
}

type PreviewProps = { item: ExportItem; format: ExportFormat; settings: ExportSettings };

function Preview({ item, format, settings }: PreviewProps) {
  const colours = useColours();
  const { data, error } = useExportPreview(item, format, choicesFor(settings, format), true);
  return (
    <View role="region" aria-label="Preview" style={{ marginTop: 14 }}>
      <Type size="tiny" tone="faint">
        {format === 'docx' || format === 'pdf'
          ? 'A preview of the content. The exported file has page breaks.'
          : 'A preview of the export.'}
      </Type>
      {error && <Failure error={error} />}
      {data?.isHtml && (
        <iframe
          title="Preview"
          sandbox=""
          srcDoc={data.text}
          style={{ width: '100%', height: 480, border: `1px solid ${colours.rule}`, background: '#fffdf7' }}
        />
      )}
      {data && !data.isHtml && (
        <pre
          // A long text is scrolled by keyboard, too.
          tabIndex={0}
          style={{
            ...{ maxHeight: 480, overflow: 'auto', border: `1px solid ${colours.rule}`, padding: 12, margin: 0 },
            ...{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere', color: colours.ink, background: colours.sheet },
          }}
        >
          {data.text || 'Nothing is selected for this file.'}
        </pre>
      )}
    </View>
  );
}
