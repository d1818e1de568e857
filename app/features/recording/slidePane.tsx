import type { Recording } from '@immeld/core/contract/recordings';
import type { Slip } from '@immeld/core/contract/slips';
import { clockTime } from '@immeld/core/formats/times';
import { useEffect, useMemo } from 'react';
import { View } from 'react-native';
import { Modal, Portal } from 'react-native-paper';
import { useChanges } from '../../api/changes';
import { changeSettings, useSettings } from '../../settings/settings';
import { Failure } from '../../ui/notice';
import { Press, WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';
import { useClosable } from '../../ui/useClosable';
import { SlidePicture } from './slidePicture';
import { type SoundPlayer, usePlayer } from './soundPlayer';
import { placedSlides, slideAt, useSlideChanges } from './useSlides';

/** Beside its buttons on a phone, above them on a wide screen. */
const SIZE = { phone: { width: 168, height: 95 }, wide: { width: '100%', height: 174 } } as const;

/** Between buttons that stand close together. */
const CLOSE = { marginRight: 14 };

/** The slide of the second that is heard, with the ways to the others. */
export function SlidePane({
  recording,
  player,
  isWide,
}: {
  recording: Recording;
  player: SoundPlayer;
  isWide: boolean;
}) {
  const slides = useMemo(() => placedSlides(recording), [recording]);
  const at = usePlayer(player, (s) => slideAt(slides, s.timeMs));
  const { showsSlides } = useSettings();
  const [isMore, setMore] = useClosable(false);
  const [isLarge, setLarge] = useClosable(false);
  const slide = slides[at];
  if (!slide) return null;
  if (!showsSlides)
    return (
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Show slides" onPress={() => changeSettings({ showsSlides: true })} />
      </View>
    );
  const go = (to: number) => slides[to] && player.seek(slides[to].startMs);
  return (
    <View role="group" aria-label="Slides" style={{ paddingBottom: 4 }}>
      <View style={isWide ? {} : { flexDirection: 'row', gap: 12 }}>
        <Press label={`Enlarge slide ${at + 1}: ${slide.text}`} onPress={() => setLarge(true)}>
          <SlidePicture slide={slide} size={isWide ? SIZE.wide : SIZE.phone} />
        </Press>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Type size="tiny" tone="faint" numberOfLines={isWide ? 1 : 2}>
            {`Slide ${at + 1} of ${slides.length}${slide.slide?.isProposed ? ' · place suggested' : ''}`}
          </Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
            <WordButton
              label="Previous"
              aria-label="Previous slide"
              disabled={at === 0}
              onPress={() => go(at - 1)}
              style={CLOSE}
            />
            <WordButton
              label="Next"
              aria-label="Next slide"
              disabled={at === slides.length - 1}
              onPress={() => go(at + 1)}
              style={CLOSE}
            />
            <WordButton
              label={isMore ? 'Less' : 'More'}
              aria-label={isMore ? 'Fewer actions for slides' : 'More actions for slides'}
              aria-expanded={isMore}
              onPress={() => setMore(!isMore)}
              style={CLOSE}
            />
          </View>
        </View>
      </View>
      {isMore && <Places recording={recording} slide={slide} next={slides[at + 1]} player={player} />}
      {isLarge && <LargeSlide slide={slide} at={at} count={slides.length} go={go} onClose={() => setLarge(false)} />}
    </View>
  );
}

/** What can be done about the places of slides: they are proposed until somebody says that they are right. */
function Places({
  recording,
  slide,
  next,
  player,
}: {
  recording: Recording;
  slide: Slip;
  next: Slip | undefined;
  player: SoundPlayer;
}) {
  const { slip: change } = useChanges();
  const changes = useSlideChanges();
  const show = useUndoBar();
  const waiting = recording.slips.filter((s) => s.slide?.isProposed && !s.isWhole).length;
  const nextBegins = () => {
    if (!next) return;
    const startMs = Math.round(player.getState().timeMs);
    change.mutate({ id: next.id, change: { startMs } });
    show(`“${next.text}” begins at ${clockTime(startMs)} now.`, () =>
      change.mutate({ id: next.id, change: { startMs: next.startMs } }),
    );
  };
  return (
    <View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
        <WordButton label="Hide slides" onPress={() => changeSettings({ showsSlides: false })} />
        {next && <WordButton label="Next slide begins here" onPress={nextBegins} />}
        {slide.slide?.isProposed && (
          <WordButton
            label="Accept this place"
            tone="petrol"
            onPress={() => change.mutate({ id: slide.id, change: { isProposed: false } })}
          />
        )}
        {waiting > 0 && (
          <WordButton label="Suggest places again" onPress={() => changes.mutate({ place: recording.id })} />
        )}
        {waiting > 1 && (
          <WordButton
            label={`Accept all ${waiting} places`}
            tone="petrol"
            onPress={() => changes.mutate({ accept: recording.id })}
          />
        )}
      </View>
      {(change.error ?? changes.error) && <Failure error={change.error ?? changes.error} />}
    </View>
  );
}

/** A slide over the whole window; the arrow keys turn to others. */
function LargeSlide({
  slide,
  at,
  count,
  go,
  onClose,
}: {
  slide: Slip;
  at: number;
  count: number;
  go: (to: number) => void;
  onClose: () => void;
}) {
  const colours = useColours();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      if (!by) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      go(at + by);
    };
    window.addEventListener('keydown', press, true);
    return () => window.removeEventListener('keydown', press, true);
  }, [at, go]);
  return (
    <Portal>
      <Modal
        visible
        onDismiss={onClose}
        contentContainerStyle={{
          ...{ alignSelf: 'center', width: '96%', maxWidth: 1240, padding: 12, borderRadius: 4 },
          ...{ backgroundColor: colours.sheet, borderWidth: 1, borderColor: colours.ink },
        }}
      >
        <View role="dialog" aria-label={`Slide ${at + 1}: ${slide.text}`}>
          <SlidePicture slide={slide} size={{ width: '100%', height: '76vh' }} />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
            <WordButton label="Previous slide" disabled={at === 0} onPress={() => go(at - 1)} />
            <WordButton label="Next slide" disabled={at === count - 1} onPress={() => go(at + 1)} />
            <Type size="tiny" tone="faint" style={{ flexGrow: 1 }}>
              {at + 1} of {count}
            </Type>
            <WordButton label="Close" onPress={onClose} />
          </View>
        </View>
      </Modal>
    </Portal>
  );
}
