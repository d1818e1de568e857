import type { NoteBody } from '@immeld/core/contract/notes';
import type { Editor } from '@tiptap/react';
import { useState } from 'react';
import { View } from 'react-native';
import { copyText, NOT_COPIED } from '../../ui/clipboard';
import { asDataAddress } from '../../ui/dataAddress';
import { WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { Title, Type } from '../../ui/type';
import { markdownAsNote, noteAsMarkdown } from './noteDocument';

const MAX_BYTES = 1_000_000;
const OWN_PICTURE = /\(\/api\/note-pictures\/[0-9a-f-]{36}\)/gi;

/** Pictures go along in the text, as data: a file that is handed on has no way to this server. */
async function withPictures(markdown: string): Promise<string> {
  let text = markdown;
  for (const found of new Set(markdown.match(OWN_PICTURE) ?? [])) {
    const data = await asDataAddress(await (await fetch(found.slice(1, -1))).blob());
    text = text.replaceAll(found, `(${data})`);
  }
  return text;
}

/** A note out as Markdown, and Markdown into it. */
export function NoteMarkdown({ editor, title }: { editor: Editor; title: string }) {
  const [said, setSaid] = useState<string | null>(null);
  const markdown = () => noteAsMarkdown(editor.getJSON() as NoteBody);
  const bringIn = () => {
    const field = document.createElement('input');
    Object.assign(field, { type: 'file', accept: '.md,.markdown,.txt,text/markdown,text/plain' });
    field.onchange = async () => {
      const file = field.files?.[0];
      if (!file) return;
      if (file.size > MAX_BYTES)
        return setSaid('This file is too large for a note (at most 1 MB). Nothing was changed.');
      const { content = [] } = markdownAsNote(await file.text());
      editor.chain().insertContentAt(editor.state.doc.content.size, content).run();
      setSaid(`“${file.name}” was added at the end of the note.`);
    };
    field.click();
  };
  const save = async () => {
    try {
      saveFile(
        new Blob([`# ${title}\n\n${await withPictures(markdown())}\n`], { type: 'text/markdown' }),
        `${title}.md`,
      );
    } catch {
      setSaid(
        'The pictures could not be loaded from the server, so nothing was exported. The note is safe. Try again later.',
      );
    }
  };
  return (
    <View>
      <Title level={2}>Markdown</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton label="Export as Markdown" onPress={() => void save()} />
        <WordButton
          label="Copy as Markdown"
          onPress={() =>
            void copyText(markdown()).then(
              () => setSaid('Copied.'),
              () => setSaid(`${NOT_COPIED} Export it as a file instead.`),
            )
          }
        />
        <WordButton label="Import Markdown" onPress={bringIn} />
      </View>
      {said && (
        <Type size="small" role="status">
          {said}
        </Type>
      )}
    </View>
  );
}
