import type { NoteBody } from '@immeld/core/contract/notes';
import { type Editor, EditorContent, useEditor } from '@tiptap/react';
import { useRouter } from 'expo-router';
import { createElement, useEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { ScrollView, View } from 'react-native';
import { addressOf, answerTo } from '../../api/call';
import { useChanges } from '../../api/changes';
import { linkTargets, useSharedSettings } from '../../api/queries';
import { useMarkKinds } from '../../ui/mark';
import { Failure } from '../../ui/notice';
import { PICTURE_TYPES, pickFile } from '../../ui/pickFile';
import { Press } from '../../ui/press';
import { FONTS, SIZES, useColours, type Colours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { caretFirst } from './caretFirst';
import { inFocus } from './inFocus';
import type { LinkMenu } from './linkSuggestions';
import { noteExtensions } from './noteDocument';
import type { PlacedPlot } from './noteSumsInEditor';
import { PlotView } from './plotView';
import { ticksIn } from './todoItems';
import { ToolRow } from './toolRow';

type NoteEditorProps = {
  noteId: string;
  body: NoteBody | null;
  onChange: (body: NoteBody) => void;
  /** Told when the editor is there, for what is done with the whole text. */
  onReady?: (editor: Editor) => void;
};

/** Writes a note: headings that fold, lists, tables, pictures, colours, and links to recordings and notes by `[[`. */
export function NoteEditor({ noteId, body, onChange, onReady }: NoteEditorProps) {
  const colours = useColours();
  const router = useRouter();
  const [menu, setMenu] = useState<LinkMenu | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const kinds = useMarkKinds();
  const { todo } = useChanges();
  const ticked = useRef(ticksIn(body));
  const [plots, setPlots] = useState<readonly PlacedPlot[]>([]);
  const { data: shared } = useSharedSettings();
  const currencies = useRef(shared?.currencies ?? null);
  currencies.current = shared?.currencies ?? null;
  const editor = useEditor({
    extensions: noteExtensions(linkTargets, setMenu, { currencies: () => currencies.current, onPlots: setPlots }),
    content: body,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Note', class: 'immeld-note' },
      handleDOMEvents: { keydown: caretFirst },
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
  useEffect(() => onReady?.(editor), [editor, onReady]);
  const picture = async () => {
    const file = await pickFile(PICTURE_TYPES);
    if (!file) return;
    try {
      const answer = await answerTo('addNotePicture', { params: { id: noteId }, file });
      const { id } = (await answer.json()) as { id: string };
      const src = addressOf('getNotePicture', { params: { id } });
      inFocus(editor).setImage({ src, alt: file.name }).run();
      setProblem(null);
    } catch (error) {
      setProblem(error);
    }
  };
  return (
    <View style={{ flex: 1 }}>
      {createElement('style', null, styles(colours, kinds))}
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingVertical: 12 }}>
        <EditorContent editor={editor} />
      </ScrollView>
      {plots.map(({ plot, place }, i) => createPortal(<PlotView plot={plot} />, place, String(i)))}
      {menu && createPortal(<LinkMenuBox menu={menu} />, document.body)}
      {problem !== null && <Failure error={problem} />}
      <ToolRow editor={editor} onPicture={picture} />
    </View>
  );
}

function LinkMenuBox({ menu: { targets, chosen, at, choose } }: { menu: LinkMenu }) {
  const colours = useColours();
  const width = Math.min(340, window.innerWidth - 24);
  return (
    <View
      {...({ role: 'listbox' } as object)}
      aria-label="Link to"
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
          No recording or note has this in its title.
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
const styles = (colours: Colours, kinds: ReturnType<typeof useMarkKinds>): string => `
.immeld-note { outline: none; min-height: 220px; font-family: ${FONTS.text}; font-size: ${SIZES.body}px; line-height: 1.6; color: ${colours.ink}; overflow-wrap: anywhere; }
.immeld-note:focus-visible { box-shadow: -3px 0 0 ${colours.petrol}; padding-left: 10px; margin-left: -10px; }
.immeld-note p { margin: 0 0 12px; }
.immeld-note h1, .immeld-note h2, .immeld-note h3 { position: relative; font-family: ${FONTS.textBold}; font-weight: normal; font-size: ${SIZES.large}px; line-height: 1.3; margin: 18px 0 8px; }
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
.immeld-note .folded-away { display: none; }
.immeld-note .fold { float: right; min-width: 44px; min-height: 32px; border: 0; background: none; color: ${colours.petrol}; font-size: ${SIZES.body}px; cursor: pointer; }
.immeld-note .fold:focus-visible { outline: 2px solid ${colours.petrol}; }
.immeld-note .tableWrapper { overflow-x: auto; margin: 0 0 12px; }
.immeld-note table { border-collapse: collapse; min-width: 60%; }
.immeld-note th, .immeld-note td { border: 1px solid ${colours.rule}; padding: 6px 10px; text-align: left; vertical-align: top; min-width: 72px; }
.immeld-note th { font-weight: normal; font-family: ${FONTS.textBold}; background: ${colours.paper}; }
.immeld-note th p, .immeld-note td p { margin: 0; }
.immeld-note .selectedCell { background: ${colours.lit}; }
.immeld-note img { max-width: 100%; max-height: 420px; display: block; margin: 0 0 12px; }
.immeld-note img.ProseMirror-selectednode { outline: 2px solid ${colours.petrol}; }
.immeld-note mark { color: inherit; background: color-mix(in srgb, ${colours.ochre} 22%, transparent); border-bottom: 2px solid ${colours.ochre}; }
${kinds.offered
  .map(({ id }) => {
    const tone = colours[kinds.of(id).tone];
    return `.immeld-note mark[data-kind="${CSS.escape(id)}"] { background: color-mix(in srgb, ${tone} 20%, transparent); border-bottom-color: ${tone}; }`;
  })
  .join('\n')}
.immeld-note .sum { font-family: ${FONTS.face}; color: ${colours.heather}; user-select: none; }
.immeld-note .sum.answer { margin-left: 8px; border-bottom: 1px dashed ${colours.heather}; }
.immeld-note .sum.problem { margin-left: 8px; font-size: ${SIZES.small}px; color: ${colours.faint}; }
.immeld-note .sum.total { margin: -8px 0 14px; }
.immeld-note hr { border: 0; border-top: 1px solid ${colours.rule}; margin: 18px 0; }
`;
