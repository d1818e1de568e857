import { USUAL_SETTINGS } from '@immeld/core/contract/settings';
import type { Recording } from '@immeld/core/contract/recordings';
import type { ParagraphKind } from '@immeld/core/contract/paragraphs';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { Failure } from '../../ui/notice';
import { ParagraphChoice } from '../../ui/paragraphChoice';
import { Title } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

/** Begins the paragraphs of a recording by another rule; its words and corrections stay. */
export function Paragraphs({ recording: { id, passages } }: { recording: Recording }) {
  const { paragraphs } = useChanges();
  const show = useUndoBar();
  const { paragraphPauseMs: pauseMs } = useSharedSettings().data ?? USUAL_SETTINGS;
  if (passages.length < 2) return null;
  const choose = (kind: ParagraphKind) =>
    paragraphs.mutate(
      { id, change: { kind, pauseMs } },
      {
        onSuccess: ({ before, recording }) => {
          const count = recording.passages.filter((p) => p.startsParagraph).length;
          show(`${count} ${count === 1 ? 'paragraph' : 'paragraphs'}.`, () =>
            paragraphs.mutate({ id, change: { starts: before } }),
          );
        },
      },
    );
  return (
    <View>
      <Title level={2}>Paragraphs</Title>
      {paragraphs.error && <Failure error={paragraphs.error} />}
      <ParagraphChoice label="Divide again" chosen={null} onChoose={choose} />
    </View>
  );
}
