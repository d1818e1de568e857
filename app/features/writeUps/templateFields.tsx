import {
  CONTENTS,
  type Content,
  FORMS,
  GROUPINGS,
  type Section,
  type Template,
  UNITS,
  WORDINGS,
} from '@immeld/core/contract/templates';
import { View } from 'react-native';
import { FORM_NAMES, WORDING_NAMES } from './templateNames';
import { Field } from '../../ui/field';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { Title } from '../../ui/type';
import { Choice } from '../../ui/choice';

const CONTENT_NAMES: Record<Content, string> = {
  summary: 'summary',
  'key-points': 'key points',
  decisions: 'decisions',
  'own-todos': 'my to-dos',
  'others-todos': 'others’ to-dos',
  'all-todos': 'all to-dos',
  'next-steps': 'next steps',
  questions: 'open questions',
  asked: 'questions asked',
  'dates-and-numbers': 'dates and numbers',
  terms: 'names and terms',
  asides: 'my asides',
  marked: 'marked passages',
  links: 'links in the margin',
  quotes: 'quotes',
  parts: 'parts',
  text: 'full text, tidied',
  letter: 'letter, as it would be sent',
};
const NEW_SECTION: Section = {
  ...{ heading: '', content: 'key-points', form: 'points', most: 5, unit: 'points', grouping: 'none', indent: 0 },
  ...{ hasTimes: false, isOptional: true },
};
/** What is no digit is left out; an empty field is no bound. */
const numberIn = (text: string): number | null => Number(text.replace(/\D/g, '').slice(0, 6)) || null;

/** Name, wording and sections of a template; sections are put in order, added and taken away. */
export function TemplateFields({ template, onChange }: { template: Template; onChange: (next: Template) => void }) {
  const { sections } = template;
  const put = (next: Section[]) => onChange({ ...template, sections: next });
  const move = (from: number, to: number) => {
    const rest = sections.filter((_, i) => i !== from);
    put([...rest.slice(0, to), sections[from]!, ...rest.slice(to)]);
  };
  return (
    <View style={{ gap: 10 }}>
      <Field label="Name" value={template.name} onChangeText={(name) => onChange({ ...template, name })} />
      <Field label="Description" value={template.about} onChangeText={(about) => onChange({ ...template, about })} />
      <OneOf
        label="Wording"
        options={WORDINGS}
        nameOf={(w) => WORDING_NAMES[w]}
        chosen={template.wording}
        onChoose={(wording) => onChange({ ...template, wording })}
      />
      <Field
        label="Maximum length in characters"
        value={template.mostCharacters === null ? '' : String(template.mostCharacters)}
        inputMode="numeric"
        onChangeText={(text) => onChange({ ...template, mostCharacters: numberIn(text) })}
      />
      {sections.map((section, i) => (
        <SectionFields
          key={i}
          section={section}
          number={i + 1}
          onChange={(next) => put(sections.map((s, at) => (at === i ? next : s)))}
          onUp={i > 0 ? () => move(i, i - 1) : null}
          onDown={i < sections.length - 1 ? () => move(i, i + 1) : null}
          onRemove={sections.length > 1 ? () => put(sections.filter((_, at) => at !== i)) : null}
        />
      ))}
      <WordButton label="Add a section" onPress={() => put([...sections, NEW_SECTION])} />
    </View>
  );
}

type SectionFieldsProps = {
  section: Section;
  number: number;
  onChange: (next: Section) => void;
  onUp: (() => void) | null;
  onDown: (() => void) | null;
  onRemove: (() => void) | null;
};

function SectionFields({ section, number, onChange, onUp, onDown, onRemove }: SectionFieldsProps) {
  const set = (part: Partial<Section>) => onChange({ ...section, ...part });
  return (
    <View role="group" aria-label={`Section ${number}`}>
      <PencilBox isInk style={{ gap: 6 }}>
        <Title level={2}>{section.heading || `Section ${number}`}</Title>
        <Field
          label={`Heading of section ${number}`}
          value={section.heading}
          onChangeText={(heading) => set({ heading })}
        />
        <OneOf
          label="Content"
          options={CONTENTS}
          nameOf={(c) => CONTENT_NAMES[c]}
          chosen={section.content}
          onChoose={(content) => set({ content })}
        />
        <OneOf
          label="Format"
          options={FORMS}
          nameOf={(f) => FORM_NAMES[f]}
          chosen={section.form}
          onChoose={(form) => set({ form })}
        />
        <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center', flexWrap: 'wrap' }}>
          <Field
            label="Maximum"
            value={section.most === null ? '' : String(section.most)}
            inputMode="numeric"
            onChangeText={(text) => set({ most: numberIn(text) })}
            style={{ width: 110 }}
          />
          <OneOf
            label="Unit"
            options={UNITS}
            nameOf={(u) => u}
            chosen={section.unit}
            onChoose={(unit) => set({ unit })}
          />
        </View>
        <OneOf
          label="Group by"
          options={GROUPINGS}
          nameOf={(g) => (g === 'none' ? 'nothing' : g)}
          chosen={section.grouping}
          onChoose={(grouping) => set({ grouping })}
        />
        <Choice
          role="switch"
          label="Hide when empty"
          isOn={section.isOptional}
          onPress={() => set({ isOptional: !section.isOptional })}
        />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton label="Move up" disabled={!onUp} onPress={() => onUp?.()} />
          <WordButton label="Move down" disabled={!onDown} onPress={() => onDown?.()} />
          <WordButton
            label="Remove"
            disabled={!onRemove}
            onPress={() => onRemove?.()}
            style={{ marginLeft: 'auto', marginRight: 0 }}
          />
        </View>
      </PencilBox>
    </View>
  );
}
