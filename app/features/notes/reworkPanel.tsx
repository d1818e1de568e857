import type { Piece, Way } from '@immeld/core/contract/rework';
import { WAYS } from '@immeld/core/contract/rework';
import { asPoints, asTable } from '@immeld/core/rework/forms';
import { editsBetween } from '@immeld/core/rework/pieces';
import type { Editor, JSONContent } from '@tiptap/react';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { call } from '../../api/call';
import { Failure, Loading } from '../../ui/notice';
import { OneOf } from '../../ui/oneOf';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { useIsWide } from '../../ui/shell';
import { Type } from '../../ui/type';
import { type Block, applyPiece, blocksOf, shiftedBy } from './reworkedText';
import { useClosable } from '../../ui/useClosable';

const WAY_NAMES: Record<Way, string> = {
  proofread: 'proofread',
  shorter: 'shorter',
  plainer: 'plainer',
  formal: 'more formal',
  friendly: 'friendlier',
};
const FORM_NAMES = { points: 'bullets', numbers: 'numbered list', table: 'table' };
type Form = keyof typeof FORM_NAMES;
const FORMS = Object.keys(FORM_NAMES) as Form[];

type Proposed = { way: Way; blocks: Block[]; pieces: Piece[] };

/** Works a note over: each proposal beside what stands there, taken one by one or all together. */
export function ReworkPanel({ editor }: { editor: Editor }) {
  const [way, setWay] = useState<Way>('proofread');
  const [proposed, setProposed] = useState<Proposed | null>(null);
  const [isAsking, setAsking] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const ask = async (next: Way) => {
    setWay(next);
    setAsking(true);
    setError(null);
    try {
      const blocks = blocksOf(editor.state);
      const { pieces } = await call('rework', { body: { way: next, blocks: blocks.map((b) => b.text) } });
      setProposed({ way: next, blocks, pieces });
    } catch (problem) {
      setError(problem);
    } finally {
      setAsking(false);
    }
  };
  const take = (piece: Piece) => {
    if (!proposed) return;
    applyPiece(editor, proposed.blocks, piece);
    const blocks = blocksOf(editor.state, proposed.blocks);
    setProposed({ ...proposed, blocks, pieces: shiftedBy(proposed.pieces, piece) });
  };
  const takeAll = () => {
    if (!proposed) return;
    // From the end, so that the places of the others stay.
    for (const [block] of [...proposed.blocks.entries()].reverse()) {
      const edits = proposed.pieces.filter((p) => p.block === block).flatMap((p) => p.edits);
      if (edits.length) applyPiece(editor, proposed.blocks, { block, edits });
    }
    setProposed({ ...proposed, pieces: [] });
  };
  const isPart = !editor.state.selection.empty;
  return (
    <ScrollView contentContainerStyle={{ paddingVertical: 12, gap: 10 }}>
      <OneOf
        label={isPart ? 'Selected text' : 'Whole note'}
        options={WAYS}
        nameOf={(w) => WAY_NAMES[w]}
        chosen={proposed ? way : ('' as Way)}
        onChoose={(next) => void ask(next)}
      />
      <Type size="tiny" tone="faint">
        These suggestions follow fixed writing rules. Nothing changes until you accept one.
      </Type>
      {error !== null && <Failure error={error} onRetry={() => void ask(way)} />}
      {isAsking && <Loading label="Checking the text" />}
      {proposed && !isAsking && proposed.pieces.length === 0 && <Type role="status">No suggestions left.</Type>}
      {proposed && !isAsking && proposed.pieces.length > 0 && (
        <>
          <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap' }}>
            <Type role="status" style={{ marginRight: 20 }}>
              {proposed.pieces.length} {proposed.pieces.length === 1 ? 'suggestion' : 'suggestions'}
            </Type>
            <WordButton label="Accept all" isBold onPress={takeAll} />
          </View>
          {proposed.pieces.map((piece, i) => (
            <PieceOf
              key={`${piece.block} ${piece.edits[0]?.from} ${i}`}
              piece={piece}
              onTake={() => take(piece)}
              onLeave={() => setProposed({ ...proposed, pieces: proposed.pieces.filter((p) => p !== piece) })}
            />
          ))}
        </>
      )}
      <FormChoice editor={editor} />
    </ScrollView>
  );
}

type PieceProps = { piece: Piece; onTake: () => void; onLeave: () => void };

function PieceOf({ piece: { before, after, reasons }, onTake, onLeave }: PieceProps) {
  const isWide = useIsWide();
  return (
    <View role="article" aria-label={`Suggestion: ${after || 'nothing'}`}>
      <PencilBox>
        <View style={{ flexDirection: isWide ? 'row' : 'column', gap: isWide ? 20 : 4 }}>
          <Type face="text" size="body" tone="faint" style={{ flex: isWide ? 1 : undefined }}>
            {changedIn(before, after).map(({ was }, i) => (
              <Words key={i} text={was} isChanged={i % 2 === 1} line="line-through" />
            ))}
          </Type>
          <Type face="text" size="body" style={{ flex: isWide ? 1 : undefined }}>
            {after === ''
              ? '–'
              : changedIn(before, after).map(({ is }, i) => (
                  <Words key={i} text={is} isChanged={i % 2 === 1} line="underline" />
                ))}
          </Type>
        </View>
        {reasons.map((reason) => (
          <Type key={reason} size="tiny" tone="petrol">
            {reason}
          </Type>
        ))}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          <WordButton label="Accept" isBold onPress={onTake} />
          <WordButton label="Drop" onPress={onLeave} />
        </View>
      </PencilBox>
    </View>
  );
}

/** A text in turns: what stays, what was and is instead, what stays, … */
function changedIn(before: string, after: string): { was: string; is: string }[] {
  const turns: { was: string; is: string }[] = [];
  let at = 0;
  for (const { from, to, insert } of editsBetween(before, after)) {
    const same = before.slice(at, from);
    turns.push({ was: same, is: same }, { was: before.slice(from, to), is: insert });
    at = to;
  }
  const rest = before.slice(at);
  return [...turns, { was: rest, is: rest }];
}

type WordsProps = { text: string; isChanged: boolean; line: 'underline' | 'line-through' };

const Words = ({ text, isChanged, line }: WordsProps) =>
  isChanged ? <span style={{ textDecoration: line, textDecorationThickness: 2 }}>{shown(text)}</span> : shown(text);

/** What is no text in a paragraph, a link for example, is one sign in it. */
const shown = (text: string): string => text.replaceAll('\uFFFC', '↗');

/** The paragraph of the caret, or those that are selected, in another form. */
function FormChoice({ editor }: { editor: Editor }) {
  const [form, setForm] = useClosable<Form | null>(null);
  const { $from, $to } = editor.state.selection;
  const range = $from.blockRange($to, (node) => node.type.name === 'doc');
  const paragraphs = range
    ? Array.from({ length: range.endIndex - range.startIndex }, (_, i) => range.parent.child(range.startIndex + i))
    : [];
  const text = paragraphs.map((p) => p.textContent).join(' ');
  const isPlain = paragraphs.length > 0 && paragraphs.every((p) => p.type.name === 'paragraph') && text.trim() !== '';
  const take = () => {
    if (!range || !form) return;
    editor.chain().insertContentAt({ from: range.start, to: range.end }, contentOf(text, form)).run();
    setForm(null);
  };
  return (
    <View>
      <OneOf
        label="Turn the paragraph into"
        options={FORMS}
        nameOf={(f) => FORM_NAMES[f]}
        chosen={form ?? ('' as Form)}
        onChoose={setForm}
      />
      {form && !isPlain && <Type tone="faint">Place the cursor in a plain paragraph, or select several.</Type>}
      {form && isPlain && (
        <PencilBox>
          <Type face="text" tone="faint">
            {text}
          </Type>
          {form === 'table'
            ? asTable(text).map(([label, said], i) => (
                <View key={i} style={{ flexDirection: 'row', gap: 12, paddingTop: 6 }}>
                  <Type isBold style={{ width: 110 }}>
                    {label}
                  </Type>
                  <Type face="text" style={{ flex: 1 }}>
                    {said}
                  </Type>
                </View>
              ))
            : asPoints(text).map((point, i) => (
                <Type face="text" key={i} style={{ paddingTop: 6 }}>
                  {form === 'points' ? '•' : `${i + 1}.`} {point}
                </Type>
              ))}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label="Accept" isBold onPress={take} />
            <WordButton label="Drop" onPress={() => setForm(null)} />
          </View>
        </PencilBox>
      )}
    </View>
  );
}

function contentOf(text: string, form: Form): JSONContent {
  const paragraph = (words: string): JSONContent => ({
    type: 'paragraph',
    ...(words ? { content: [{ type: 'text', text: words }] } : {}),
  });
  if (form === 'table') {
    const cells = (row: readonly string[]) => row.map((c) => ({ type: 'tableCell', content: [paragraph(c)] }));
    return { type: 'table', content: asTable(text).map((row) => ({ type: 'tableRow', content: cells(row) })) };
  }
  return {
    type: form === 'points' ? 'bulletList' : 'orderedList',
    content: asPoints(text).map((point) => ({ type: 'listItem', content: [paragraph(point)] })),
  };
}
