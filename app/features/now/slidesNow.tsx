import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { CaptureEngine } from '../../capture/captureEngine';
import { useCapture } from '../../offline/deviceContext';
import { isInField } from '../../ui/inField';
import { Failure } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { deckNow, useDeckNow } from './deckNow';

const HEIGHT = 150;

/** Puts a page of the deck into the margin, at the second at which it was asked for. */
async function showPage(engine: CaptureEngine, page: number): Promise<void> {
  const startMs = engine.state.elapsedMs;
  const shown = await deckNow.show(page);
  if (!shown) return;
  const { title, text, picture } = shown;
  engine.addSlip({ kind: 'slide', text: title, startMs, page, words: text }, picture);
}

/** Why slides cannot be shown, in a sentence. */
const inWords = (error: unknown): Error => {
  const { name, message } = error as Error;
  if (name === 'PasswordException')
    return new Error('This PDF has a password. Save it without one, then choose it again.');
  if (name === 'InvalidPDFException')
    return new Error('While you record, slides must be a PDF. You can add other files to the recording afterwards.');
  return new Error(message);
};

/** The slides of what is being recorded: the one that is shown, and the next one by a press or the N key. */
export function SlidesNow() {
  const engine = useCapture();
  const deck = useDeckNow();
  const [error, setError] = useState<Error | null>(null);
  const go = (page: number) =>
    void showPage(engine, page).then(
      () => setError(null),
      (e) => setError(inWords(e)),
    );
  const next = useRef(() => undefined as void);
  next.current = () => deck && deck.page < deck.pdf.pages && go(deck.page + 1);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isInField(event) || event.ctrlKey || event.metaKey || event.altKey || event.key.toLowerCase() !== 'n') return;
      event.preventDefault();
      next.current();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const choose = async () => {
    const file = await pickFile('application/pdf,.pdf');
    if (!file) return;
    try {
      await deckNow.open(file);
      await showPage(engine, 1);
      setError(null);
    } catch (e) {
      setError(inWords(e));
    }
  };
  if (!deck)
    return (
      <View>
        <View style={{ flexDirection: 'row' }}>
          <WordButton label="Show slides" onPress={() => void choose()} />
        </View>
        {error && <Failure error={error} />}
      </View>
    );
  const { page, pdf, name } = deck;
  return (
    <View role="group" aria-label={`Slides: ${name}`}>
      <PageNow />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
        <WordButton label="Next slide" isBold disabled={page >= pdf.pages} onPress={() => go(page + 1)} />
        <WordButton label="Previous slide" disabled={page <= 1} onPress={() => go(page - 1)} />
        <WordButton label="Close slides" onPress={deckNow.close} />
        <Type size="tiny" tone="faint" role="status">
          {page} of {pdf.pages}
        </Type>
      </View>
      {error && <Failure error={error} />}
    </View>
  );
}

function PageNow() {
  const colours = useColours();
  const deck = useDeckNow();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const place = canvas.current;
    if (place && deck && deck.page > 0)
      void deck.pdf.draw(deck.page, place, place.clientWidth || HEIGHT).catch(() => undefined);
  }, [deck]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={deck ? `${deck.name}, page ${deck.page} of ${deck.pdf.pages}` : ''}
      style={{ maxHeight: HEIGHT, maxWidth: '100%', background: '#fff', border: `1px solid ${colours.rule}` }}
    />
  );
}
