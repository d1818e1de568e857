import { type Editor, useEditorState } from '@tiptap/react';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { inFocus } from './inFocus';

type Tool = { label: string; isOn?: boolean; disabled?: boolean; act: () => void };

/** What the caret stands in can be switched; the row stays above the keyboard. */
export function ToolRow({ editor, onPicture }: { editor: Editor; onPicture: () => void }) {
  const colours = useColours();
  const { offered } = useMarkKinds();
  const [isColouring, setColouring] = useState(false);
  const is = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      heading: e.isActive('heading', { level: 2 }),
      bold: e.isActive('bold'),
      italic: e.isActive('italic'),
      points: e.isActive('bulletList'),
      numbers: e.isActive('orderedList'),
      checks: e.isActive('taskList'),
      quote: e.isActive('blockquote'),
      table: e.isActive('table'),
      meaning: e.isActive('meaning') ? (e.getAttributes('meaning')['kind'] as string) : null,
      canUndo: e.can().undo(),
      canRedo: e.can().redo(),
    }),
  });
  const run = () => inFocus(editor);
  const inTable: Tool[] = [
    { label: 'Add row', act: () => run().addRowAfter().run() },
    { label: 'Add column', act: () => run().addColumnAfter().run() },
    { label: 'Remove row', act: () => run().deleteRow().run() },
    { label: 'Remove column', act: () => run().deleteColumn().run() },
    { label: 'Remove table', act: () => run().deleteTable().run() },
  ];
  const tools: Tool[] = [
    { label: 'Heading', isOn: is.heading, act: () => run().toggleHeading({ level: 2 }).run() },
    { label: 'Bold', isOn: is.bold, act: () => run().toggleBold().run() },
    { label: 'Italic', isOn: is.italic, act: () => run().toggleItalic().run() },
    { label: 'Colour', isOn: isColouring || is.meaning !== null, act: () => setColouring(!isColouring) },
    { label: 'Bullets', isOn: is.points, act: () => run().toggleBulletList().run() },
    { label: 'Numbered list', isOn: is.numbers, act: () => run().toggleOrderedList().run() },
    { label: 'Checklist', isOn: is.checks, act: () => run().toggleTaskList().run() },
    { label: 'Quote', isOn: is.quote, act: () => run().toggleBlockquote().run() },
    { label: 'Link', act: () => run().insertContent('[[').run() },
    ...(is.table
      ? []
      : [{ label: 'Table', act: () => run().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run() }]),
    { label: 'Picture', act: onPicture },
    { label: 'Undo', disabled: !is.canUndo, act: () => run().undo().run() },
    { label: 'Redo', disabled: !is.canRedo, act: () => run().redo().run() },
  ];
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: colours.rule }}>
      {isColouring && (
        <ScrollView
          horizontal
          role="radiogroup"
          aria-label="Colour of the words"
          showsHorizontalScrollIndicator={false}
        >
          <Press
            label="No colour"
            role="radio"
            aria-checked={is.meaning === null}
            onPress={() => run().unsetMark('meaning').run()}
            style={{ paddingHorizontal: 10 }}
          >
            <Type>No colour</Type>
          </Press>
          {offered.map(({ id, label }) => (
            <Press
              key={id}
              label={label}
              role="radio"
              aria-checked={is.meaning === id}
              onPress={() => run().setMark('meaning', { kind: id }).run()}
              style={{ flexDirection: 'row', alignItems: 'center', gap: 6, paddingHorizontal: 10 }}
            >
              <MarkShape kind={id} size={14} />
              <Type isBold={is.meaning === id}>{label}</Type>
            </Press>
          ))}
        </ScrollView>
      )}
      {is.table && <Tools label="Table tools" tools={inTable} />}
      <Tools label="Text formatting" tools={tools} />
    </View>
  );
}

function Tools({ label: name, tools }: { label: string; tools: readonly Tool[] }) {
  const colours = useColours();
  return (
    <ScrollView
      horizontal
      role="toolbar"
      aria-label={name}
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0 }}
    >
      {tools.map(({ label, isOn, disabled = false, act }) => (
        <Press
          key={label}
          label={label}
          {...(isOn === undefined ? {} : { 'aria-pressed': isOn })}
          disabled={disabled}
          onPress={act}
          style={{ paddingHorizontal: 10, alignItems: 'center' }}
        >
          <View style={{ borderBottomWidth: 2, borderBottomColor: isOn ? colours.ink : 'transparent' }}>
            <Type isBold={isOn ?? false}>{label}</Type>
          </View>
        </Press>
      ))}
    </ScrollView>
  );
}
