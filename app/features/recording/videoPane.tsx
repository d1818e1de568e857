import type { Recording } from '@immeld/core/contract/recordings';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import type { KeptVideo } from '../../offline/captureStore';
import { useDevice, useOutbox } from '../../offline/deviceContext';
import { changeSettings, useSettings } from '../../settings/settings';
import { sizeName } from '../../ui/dates';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import type { SoundPlayer } from './soundPlayer';

const LOWEST = 90;
const HIGHEST = 520;
const STEP = 20;
/** The picture may lag behind the sound by so much before it is moved. */
const DRIFT_SECONDS = 0.15;

type Shown = { address: string; kept: KeptVideo | null };

/** Where the picture of a recording comes from: the server, or this device, where only its sound was sent. */
function useVideo({ id, hasVideo }: Recording): Shown | null {
  const { store } = useDevice();
  const [kept, setKept] = useState<Shown | null>(null);
  useEffect(() => {
    let address: string | null = null;
    let isGone = false;
    const read = async () => {
      const [video = null] = await store.videosOf(id);
      if (isGone) return;
      if (address) URL.revokeObjectURL(address);
      address = video && URL.createObjectURL(video.video);
      setKept(address ? { address, kept: video } : null);
    };
    void read();
    return () => {
      isGone = true;
      if (address) URL.revokeObjectURL(address);
    };
  }, [store, id]);
  return kept ?? (hasVideo ? { address: addressOf('getVideo', { params: { id } }), kept: null } : null);
}

/** The picture of a video, in step with the sound; as large as the reader wants it. */
export function VideoPane({ recording, player }: { recording: Recording; player: SoundPlayer }) {
  const shown = useVideo(recording);
  const { videoHeight: height } = useSettings();
  const { store } = useDevice();
  const { send, items } = useOutbox();
  if (!shown) return null;
  const { kept, address } = shown;
  const isHidden = height === 0;
  const isSending = items.some((i) => i.details['videoOf'] === recording.id && i.state !== 'refused');
  const isOnlyHere = kept !== null && !recording.hasVideo;
  return (
    <View style={{ paddingBottom: 6 }}>
      {!isHidden && <Picture key={address} address={address} player={player} height={height} />}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
        <WordButton
          label={isHidden ? 'Show video' : 'Hide video'}
          onPress={() => changeSettings({ videoHeight: isHidden ? 180 : 0 })}
        />
        {isOnlyHere && !isSending && (
          <WordButton
            label="Upload to the server"
            onPress={() => void send([new File([kept.video], kept.name)], { videoOf: recording.id })}
          />
        )}
        {kept && recording.hasVideo && (
          <WordButton label="Remove from this device" onPress={() => void store.removeVideo(kept.captureId)} />
        )}
      </View>
      {isOnlyHere && (
        <Type size="tiny" tone="faint">
          {isSending
            ? 'Sending the video to the server.'
            : `The audio is on the server. The video, ${sizeName(kept.video.size)}, is only on this device.`}
        </Type>
      )}
    </View>
  );
}

function Picture({ address, player, height }: { address: string; player: SoundPlayer; height: number }) {
  const colours = useColours();
  const video = useRef<HTMLVideoElement>(null);
  const [hasFailed, setFailed] = useState(false);
  useEffect(() => {
    const follow = () => {
      const picture = video.current;
      if (!picture) return;
      const { timeMs, isPlaying, rate } = player.getState();
      picture.playbackRate = rate;
      if (Math.abs(picture.currentTime - timeMs / 1000) > DRIFT_SECONDS) picture.currentTime = timeMs / 1000;
      if (isPlaying && picture.paused) void picture.play().catch(() => undefined);
      if (!isPlaying && !picture.paused) picture.pause();
    };
    follow();
    return player.subscribe(follow);
  }, [player]);
  if (hasFailed) {
    return <Type tone="faint">This browser cannot show the video. The audio and the text are available.</Type>;
  }
  return (
    <View style={{ backgroundColor: colours.sheet }}>
      <video
        ref={video}
        src={address}
        muted
        playsInline
        preload="auto"
        aria-label="Video"
        onClick={() => player.toggle()}
        onError={() => setFailed(true)}
        style={{ height, width: '100%', objectFit: 'contain', background: '#000', display: 'block' }}
      />
      <Grip height={height} />
    </View>
  );
}

/** The lower edge of the picture: dragged, or moved with the arrow keys. */
function Grip({ height }: { height: number }) {
  const colours = useColours();
  const from = useRef<{ y: number; height: number } | null>(null);
  const set = (to: number) => changeSettings({ videoHeight: Math.round(Math.min(HIGHEST, Math.max(LOWEST, to))) });
  const move = (event: PointerEvent) => {
    if (from.current) set(from.current.height + event.clientY - from.current.y);
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Height of the video"
      aria-orientation="vertical"
      aria-valuemin={LOWEST}
      aria-valuemax={HIGHEST}
      aria-valuenow={height}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { y: event.clientY, height };
      }}
      onPointerMove={move}
      onPointerUp={() => (from.current = null)}
      onKeyDown={(event) => {
        const by = { ArrowDown: STEP, ArrowUp: -STEP, PageDown: 5 * STEP, PageUp: -5 * STEP }[event.key];
        if (!by) return;
        event.preventDefault();
        event.stopPropagation();
        set(height + by);
      }}
      style={{ height: 24, cursor: 'ns-resize', touchAction: 'none', display: 'grid', placeItems: 'center' }}
    >
      <div style={{ width: 56, height: 4, borderRadius: 2, background: colours.faint }} />
    </div>
  );
}
