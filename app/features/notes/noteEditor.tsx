import type { NoteBody } from '@immeld/core/contract/notes';
import { type Editor, EditorContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useRouter } from 'expo-router';
import { createElement, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { ScrollView, View } from 'react-native';
import { linkTargets, useChanges } from '../../api/queries';
import { Press } from '../../ui/press';
import { FONTS, SIZES, useColours, type Colours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { type LinkMenu, linkNodes } from './linkSuggestions';
import { TaskList, TodoItem, ticksIn } from './todoItems';

type NoteEditorProps = { body: NoteBody | null; onChange: (body: NoteBody) => void };

/** Writes a note: headings, lists, quotes, and links to recordings and notes by `[[`. */
export function NoteEditor({ body, onChange }: NoteEditorProps) {
  const colours = useColours();
  const router = useRouter();
  const [menu, setMenu] = useState<LinkMenu | null>(null);
  const { todo } = useChanges();
  const ticked = useRef(ticksIn(body));
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ link: { openOnClick: false } }),
      TaskList,
      TodoItem.configure({ nested: true }),
      linkNodes(linkTargets, setMenu),
    ],
    content: body,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Note', class: 'immeld-note' },
      handleClickOn: (_view, _pos, node) => {
        if (node.type.name !== 'mention') return false;
        const { kind, id, startMs } = node.attrs as { kind: string; id: string; startMs: number | null };
        const at = startMs === null ? {} : { at: String(startMs) };
        router.push({ pathname: kind === 'note' ? '/notes/[id]' : '/recordings/[id]', params: { id, ...at } });
        return true;
      },
    },
    onUpdate: ({ editor: now }) => {
      const written = now.getJSON() as NoteBody;
      onChange(written);
      const ticks = ticksIn(written);
      for (const [id, isDone] of ticks) {
        if (ticked.current.has(id) && ticked.current.get(id) !== isDone) todo.mutate({ id, change: { isDone } });
      }
      ticked.current = ticks;
    },
  });
  return (
    <View style={{ flex: 1 }}>
      {createElement('style', null, styles(colours))}
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingVertical: 12 }}>
        <EditorContent editor={editor} />
      </ScrollView>
      {menu && createPortal(<LinkMenuBox menu={menu} />, document.body)}
      <ToolRow editor={editor} />
    </View>
  );
}

/** What the caret stands in can be switched; the row stays above the keyboard. */
function ToolRow({ editor }: { editor: Editor }) {
  const colours = useColours();
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
      canUndo: e.can().undo(),
      canRedo: e.can().redo(),
    }),
  });
  const run = () => editor.chain().focus();
  const tools: { label: string; isOn?: boolean; disabled?: boolean; act: () => void }[] = [
    { label: 'Heading', isOn: is.heading, act: () => run().toggleHeading({ level: 2 }).run() },
    { label: 'Bold', isOn: is.bold, act: () => run().toggleBold().run() },
    { label: 'Italic', isOn: is.italic, act: () => run().toggleItalic().run() },
    { label: 'Points', isOn: is.points, act: () => run().toggleBulletList().run() },
    { label: 'Numbers', isOn: is.numbers, act: () => run().toggleOrderedList().run() },
    { label: 'Check boxes', isOn: is.checks, act: () => run().toggleTaskList().run() },
    { label: 'Quote', isOn: is.quote, act: () => run().toggleBlockquote().run() },
    { label: 'Link', act: () => run().insertContent('[[').run() },
    { label: 'Undo', disabled: !is.canUndo, act: () => run().undo().run() },
    { label: 'Redo', disabled: !is.canRedo, act: () => run().redo().run() },
  ];
  return (
    <ScrollView
      horizontal
      role="toolbar"
      aria-label="Form of the text"
      showsHorizontalScrollIndicator={false}
      style={{ flexGrow: 0, borderTopWidth: 1, borderTopColor: colours.rule }}
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

function LinkMenuBox({ menu: { targets, chosen, at, choose } }: { menu: LinkMenu }) {
  const colours = useColours();
  const width = Math.min(340, window.innerWidth - 24);
  return (
    <View
      {...({ role: 'listbox' } as object)}
      aria-label="What the link leads to"
      style={
        {
          position: 'fixed',
          ...{ left: Math.max(12, Math.min(at.x, window.innerWidth - width - 12)), zIndex: 5, width },
          ...(at.y > window.innerHeight * 0.6 ? { bottom: window.innerHeight - at.y + 26 } : { top: at.y + 4 }),
          ...{ backgroundColor: colours.sheet, borderWidth: 1, borderColor: colours.ink, borderRadius: 4 },
        } as object
      }
    >
      {targets.length === 0 && (
        <Type tone="faint" style={{ padding: 12 }}>
          No recording or note has these words in its title.
        </Type>
      )}
      {targets.map((target, i) => (
        <Press
          key={target.id}
          role="option"
          aria-selected={i === chosen}
          label={`${target.title}, ${target.kind}`}
          onPress={() => choose(target)}
          style={{ paddingHorizontal: 12, backgroundColor: i === chosen ? colours.lit : colours.sheet }}
        >
          <Type numberOfLines={1}>
            {target.title}{' '}
            <Type size="tiny" tone="faint">
              {target.kind}
            </Type>
          </Type>
        </Press>
      ))}
    </View>
  );
}

/** The editor draws plain elements: they get the manuscript's face and our colours. */
const styles = (colours: Colours): string => `
.immeld-note { outline: none; min-height: 220px; font-family: ${FONTS.text}; font-size: ${SIZES.body}px; line-height: 1.6; color: ${colours.ink}; overflow-wrap: anywhere; }
.immeld-note:focus-visible { box-shadow: -3px 0 0 ${colours.petrol}; padding-left: 10px; margin-left: -10px; }
.immeld-note p { margin: 0 0 12px; }
.immeld-note h1, .immeld-note h2, .immeld-note h3 { font-family: ${FONTS.textBold}; font-weight: normal; font-size: ${SIZES.large}px; line-height: 1.3; margin: 18px 0 8px; }
.immeld-note ul, .immeld-note ol { margin: 0 0 12px; padding-left: 26px; }
.immeld-note li p { margin: 0 0 4px; }
.immeld-note ul[data-type=taskList] { list-style: none; padding-left: 0; }
.immeld-note ul[data-type=taskList] li { display: flex; gap: 12px; align-items: flex-start; }
.immeld-note ul[data-type=taskList] label { padding: 2px; }
.immeld-note ul[data-type=taskList] input { width: 26px; height: 26px; margin: 0; accent-color: ${colours.petrol}; }
.immeld-note ul[data-type=taskList] li > div { flex: 1; }
.immeld-note blockquote { margin: 0 0 12px; padding-left: 14px; border-left: 3px solid ${colours.rule}; }
.immeld-note a { color: ${colours.petrol}; text-decoration: underline; cursor: pointer; }
.immeld-note pre { background: ${colours.sheet}; border: 1px solid ${colours.rule}; padding: 10px; overflow-x: auto; }
.immeld-note hr { border: 0; border-top: 1px solid ${colours.rule}; margin: 18px 0; }
`;
