import type { Slip } from '@immeld/core/contract/slips';
import { deckFormOf } from '@immeld/core/slides/deckForms';
import { slipPlace } from '@immeld/core/formats/slipPlace';
import { clockTime } from '@immeld/core/formats/times';
import { memo, useContext, useState } from 'react';
import { View } from 'react-native';
import { addressOf, answerTo } from '../../api/call';
import { useChanges } from '../../api/changes';
import { localTime, sizeName, whenSaid } from '../../ui/dates';
import { LineEntry } from '../../ui/lineEntry';
import { MarkShape, useMarkKinds } from '../../ui/mark';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { WordButton } from '../../ui/press';
import { saveFile } from '../../ui/saveFile';
import { SLIP_NAMES } from '../../ui/slipNames';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { PdfPages } from './pdfPages';
import { PictureWords } from './pictureWords';
import { useQuoteIntoNote } from './quoteInto';
import type { SoundPlayer } from './soundPlayer';
import { DecksContext, useSlideChanges } from './useSlides';
import { useClosable } from '../../ui/useClosable';

type Entry = 'words' | 'comment' | 'assignee';
const ENTRIES: Record<Entry, { label: string; most: number }> = {
  words: { label: 'Words', most: 5000 },
  comment: { label: 'Comment', most: 2000 },
  assignee: { label: 'Assign to', most: 60 },
};

/** Beside the name of a mark, on one line with it. */
const CLOSE = { marginRight: 8 };

/** A mark, a written slip, a picture or whatever else stands in the margin at its second. */
export const SlipNote = memo(function SlipNote({ slip, player }: { slip: Slip; player: SoundPlayer }) {
  const colours = useColours();
  const kinds = useMarkKinds();
  const { slip: change, comment } = useChanges();
  const show = useUndoBar();
  const quote = useQuoteIntoNote();
  const [entry, setEntry] = useClosable<Entry | null>(null);
  const [isMore, setMore] = useClosable(false);
  const [text, setText] = useState('');
  const name = slip.mark ? kinds.of(slip.mark).label : SLIP_NAMES[slip.kind];
  const tone = slip.mark ? colours[kinds.of(slip.mark).tone] : slip.kind === 'aside' ? colours.heather : colours.rule;
  const isByRecorder = slip.kind === 'seam' || slip.kind === 'gap';
  const { id } = slip;
  // A mark alone takes one line, so that many of them do not push the words apart.
  const isBare =
    slip.mark !== null &&
    !slip.text &&
    !slip.assignee &&
    !slip.hasPicture &&
    slip.comments.length === 0 &&
    !isMore &&
    !entry;
  const begin = (next: Entry) => {
    setText(next === 'words' ? slip.text : next === 'assignee' ? (slip.assignee ?? '') : '');
    setEntry(next);
  };
  const keep = () => {
    if (entry === 'words') change.mutate({ id, change: { text } });
    if (entry === 'assignee') change.mutate({ id, change: { assignee: text.trim() || null } });
    if (entry === 'comment') comment.mutate({ id, text });
    setEntry(null);
    setMore(false);
  };
  const remove = () => {
    change.mutate({ id, change: { isBinned: true } });
    show(`${name} removed.`, () => change.mutate({ id, change: { isBinned: false } }));
  };
  const forNobody = () => {
    change.mutate({ id, change: { assignee: null } });
    show(`No longer assigned.`, () => change.mutate({ id, change: { assignee: slip.assignee } }));
  };
  const nameLine = (
    <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
      {slip.mark && <MarkShape kind={slip.mark} size={14} />}
      <Type size="tiny" tone="faint">
        {name}
        {slip.isWhole ? ` ${slipPlace(slip)}` : ''}
        {slip.assignee ? ` · for ${slip.assignee}` : ''}
      </Type>
    </View>
  );
  return (
    <View role="article" aria-label={`${name} ${slipPlace(slip)}`}>
      <PencilBox
        isInk
        style={{
          marginBottom: 10,
          borderLeftWidth: 3,
          borderLeftColor: tone,
          ...(isBare ? { paddingHorizontal: 8, paddingTop: 0, paddingBottom: 0 } : {}),
        }}
      >
        {!isBare && nameLine}
        {slip.slide?.isProposed && (
          <Type size="tiny" tone="petrol">
            {slip.isWhole ? 'No place found' : 'Place suggested'}
          </Type>
        )}
        {slip.text !== '' && slip.kind !== 'file' && (
          <Type isBold={slip.kind === 'heading'} {...(slip.kind === 'aside' ? { face: 'text' as const } : {})}>
            {slip.text}
          </Type>
        )}
        {slip.address !== null && <LinkOut address={slip.address} />}
        {slip.hasPicture && (
          <img
            src={addressOf('getPicture', { params: { id } })}
            alt={slip.text || 'Picture'}
            style={{ maxWidth: '100%', maxHeight: 260, objectFit: 'contain', marginTop: 6 }}
          />
        )}
        {slip.kind === 'picture' && slip.words !== null && <PictureWords id={id} words={slip.words} />}
        {slip.file && <FileBeside slipId={id} file={slip.file} />}
        <Comments slip={slip} />
        {(change.error ?? comment.error) && <Failure error={change.error ?? comment.error} />}
        {entry && (
          <LineEntry
            label={ENTRIES[entry].label}
            action="Save"
            value={text}
            onChange={setText}
            onSubmit={keep}
            maxLength={ENTRIES[entry].most}
            autoFocus
          />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
          {isBare && <View style={CLOSE}>{nameLine}</View>}
          {!isByRecorder && !isMore && !entry && (
            <>
              <WordButton
                label={slip.text ? 'Edit' : 'Add text'}
                onPress={() => begin('words')}
                {...(isBare ? { style: CLOSE } : {})}
              />
              <WordButton
                label="More"
                aria-label={`More actions for ${name}`}
                onPress={() => setMore(true)}
                {...(isBare ? { style: CLOSE } : {})}
              />
            </>
          )}
          {!isByRecorder && isMore && !entry && (
            <>
              <WordButton label="Comment" onPress={() => begin('comment')} />
              {slip.assignee ? (
                <WordButton label={`Unassign ${slip.assignee}`} onPress={forNobody} />
              ) : (
                <WordButton label="Assign to someone" onPress={() => begin('assignee')} />
              )}
              {quote && slip.text !== '' && (
                <WordButton label="Add to a note" onPress={() => quote({ text: slip.text, startMs: slip.startMs })} />
              )}
              <WordButton label="Remove" onPress={remove} />
              <WordButton label="Less" onPress={() => setMore(false)} />
            </>
          )}
          {entry && <WordButton label="Cancel" onPress={() => setEntry(null)} />}
          {!slip.isWhole && (
            <WordButton
              label={isBare ? clockTime(slip.startMs) : `Play ${clockTime(slip.startMs)}`}
              aria-label={`Play ${clockTime(slip.startMs)}`}
              tone="petrol"
              onPress={() => player.seek(slip.startMs, true)}
              style={{ marginLeft: 'auto', marginRight: 0, alignItems: 'flex-end' }}
            />
          )}
        </View>
      </PencilBox>
    </View>
  );
});

function LinkOut({ address }: { address: string }) {
  const colours = useColours();
  return (
    <a
      href={address}
      target="_blank"
      rel="noopener noreferrer"
      style={{ color: colours.petrol, overflowWrap: 'anywhere', padding: '12px 0', display: 'inline-block' }}
    >
      <Type tone="petrol">{address.replace(/^(https?:\/\/|mailto:)/i, '')}</Type>
    </a>
  );
}

/** A file that lies beside the words; a PDF shows its pages. */
function FileBeside({ slipId, file }: { slipId: string; file: NonNullable<Slip['file']> }) {
  const [isOpen, setOpen] = useClosable(false);
  const [error, setError] = useState<Error | null>(null);
  const slides = useSlideChanges();
  const decks = useContext(DecksContext);
  const save = () =>
    answerTo('getSlipFile', { params: { id: slipId } })
      .then(async (answer) => saveFile(await answer.blob(), file.name))
      .catch(setError);
  return (
    <View>
      <Type style={{ overflowWrap: 'anywhere' } as object}>{file.name}</Type>
      <Type size="tiny" tone="faint">
        {sizeName(file.sizeBytes)}
      </Type>
      {(error ?? slides.error) && <Failure error={error ?? slides.error} />}
      {slides.isPending && (
        <Type size="tiny" tone="faint" role="status">
          Reading the slides.
        </Type>
      )}
      {isOpen && <PdfPages slipId={slipId} name={file.name} />}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {file.mediaType === 'application/pdf' && (
          <WordButton label={isOpen ? 'Hide pages' : 'Show pages'} onPress={() => setOpen(!isOpen)} />
        )}
        {deckFormOf(file.mediaType) && !slides.isPending && !decks.has(slipId) && (
          <WordButton label="Show as slides" onPress={() => slides.mutate({ make: slipId })} />
        )}
        <WordButton label="Save" aria-label={`Save ${file.name}`} onPress={() => void save()} />
      </View>
    </View>
  );
}

function Comments({ slip }: { slip: Slip }) {
  const colours = useColours();
  const { comment, uncomment } = useChanges();
  const show = useUndoBar();
  if (slip.comments.length === 0) return null;
  return (
    <View role="list" aria-label="Comments" style={{ marginTop: 6, gap: 4 }}>
      {slip.comments.map(({ id, text, writtenAt }) => (
        <View
          key={id}
          role="listitem"
          style={{
            ...{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingLeft: 10 },
            ...{ borderLeftWidth: 1, borderLeftColor: colours.rule },
          }}
        >
          <View style={{ flex: 1 }}>
            <Type size="small">{text}</Type>
            <Type size="tiny" tone="faint">
              {whenSaid(localTime(new Date(writtenAt)))}
            </Type>
          </View>
          <WordButton
            label="Remove"
            aria-label={`Remove the comment ${text.slice(0, 40)}`}
            style={{ marginRight: 0 }}
            onPress={() => {
              uncomment.mutate({ id: slip.id, commentId: id });
              show('Comment removed.', () => comment.mutate({ id: slip.id, text }));
            }}
          />
        </View>
      ))}
    </View>
  );
}
