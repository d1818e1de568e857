/** Where the sound comes from. The levels are factors from 0 to 2. */
export type SourceChoice = {
  microphone: boolean;
  /** The browser's id of a microphone; null is the system's own choice. */
  deviceId: string | null;
  /** The sound of a browser tab or of the screen. */
  screen: boolean;
  microphoneGain: number;
  screenGain: number;
};

export const USUAL_SOURCE: SourceChoice = {
  microphone: true,
  deviceId: null,
  screen: false,
  microphoneGain: 1,
  screenGain: 1,
};

/** A source that cannot be opened, as a sentence with what to do. */
export class SourceProblem extends Error {}

/** Why this browser cannot record the sound of a tab, with the way round it; null when it can. */
export function screenObstacle(): string | null {
  return typeof navigator.mediaDevices?.getDisplayMedia === 'function'
    ? null
    : 'This browser cannot record the sound of a tab. Play it through the loudspeaker and record with the microphone, or record with Immeld on a second device placed nearby.';
}

/** Whether this device has a microphone now. */
export const hasMicrophone = async (): Promise<boolean> =>
  (await navigator.mediaDevices.enumerateDevices().catch(() => [])).some((d) => d.kind === 'audioinput');

/** Why the microphone could not be opened, as a sentence with what to do. */
export function microphoneProblem(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (!window.isSecureContext) {
    return 'Browsers allow the microphone only on secure pages. Open Immeld at an https:// address or on localhost.';
  }
  if (name === 'NotAllowedError') {
    return 'Immeld is not allowed to use the microphone. Allow it in the site settings next to the address bar, then try again.';
  }
  if (name === 'NotFoundError') return 'No microphone found. Connect one, or import an audio file instead.';
  if (name === 'OverconstrainedError') {
    return 'The microphone you chose is not connected. Connect it, or choose another one under “Record from” in the settings.';
  }
  if (name === 'NotReadableError')
    return 'Another program is using the microphone. Close that program, then try again.';
  return 'The microphone could not be opened. Try another browser, or import an audio file instead.';
}

export type OpenSources = {
  /** What is recorded: one source as it is, or both mixed. */
  stream: MediaStream;
  /** The same for the level display and the words. */
  node: AudioNode;
  audio: AudioContext;
  tracks: MediaStreamTrack[];
  /** Whether all of it comes from a microphone, which may come back after it was unplugged. */
  isMicrophone: boolean;
  setGains: (microphone: number, screen: number) => void;
  /** Plays a sound aloud so that it is in the recording, too; resolves when it has begun. Throws when it cannot. */
  announce: (sound: ArrayBuffer) => Promise<void>;
  close: () => void;
};

/** @param cancelsEcho whether what this device plays is taken out of what its microphone hears */
async function openMicrophone(deviceId: string | null, cancelsEcho: boolean): Promise<MediaStream> {
  try {
    if (!navigator.mediaDevices) throw new Error('insecure');
    const audio = { echoCancellation: cancelsEcho, noiseSuppression: true, autoGainControl: true };
    return await navigator.mediaDevices.getUserMedia({
      audio: { ...audio, ...(deviceId ? { deviceId: { exact: deviceId } } : {}) },
    });
  } catch (error) {
    throw new SourceProblem(microphoneProblem(error));
  }
}

async function openScreen(): Promise<MediaStream> {
  const obstacle = screenObstacle();
  if (obstacle) throw new SourceProblem(obstacle);
  let stream: MediaStream;
  try {
    // Browsers give sound only together with a picture; it is asked for as small as it goes and never looked at.
    stream = await navigator.mediaDevices.getDisplayMedia({
      video: { width: { max: 64 }, frameRate: { max: 1 } },
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      preferCurrentTab: false,
    } as DisplayMediaStreamOptions);
  } catch {
    throw new SourceProblem(
      'Recording did not start because no tab or screen was chosen. Press Speak again and choose one.',
    );
  }
  if (stream.getAudioTracks().length === 0) {
    stream.getTracks().forEach((track) => track.stop());
    throw new SourceProblem(
      'What you chose has no sound. Choose a tab, leave the option to share its audio switched on, then press Speak again.',
    );
  }
  return stream;
}

/** Opens what was chosen. Throws SourceProblem; nothing is left open then. */
export async function openSources(choice: SourceChoice): Promise<OpenSources> {
  const streams: { stream: MediaStream; kind: 'microphone' | 'screen' }[] = [];
  const stopAll = () => streams.forEach(({ stream }) => stream.getTracks().forEach((track) => track.stop()));
  try {
    if (choice.screen) streams.push({ stream: await openScreen(), kind: 'screen' });
    if (choice.microphone || !choice.screen) {
      // The sound of a tab would come twice; alone, the microphone is to hear what is played in the room.
      streams.push({ stream: await openMicrophone(choice.deviceId, choice.screen), kind: 'microphone' });
    }
  } catch (error) {
    stopAll();
    throw error;
  }
  const audio = new AudioContext();
  const mix = audio.createGain();
  const gains = new Map<string, GainNode>();
  for (const { stream, kind } of streams) {
    const gain = audio.createGain();
    gain.gain.value = kind === 'microphone' ? choice.microphoneGain : choice.screenGain;
    audio.createMediaStreamSource(stream).connect(gain).connect(mix);
    gains.set(kind, gain);
  }
  const isPlain = streams.length === 1 && choice.microphoneGain === 1 && choice.screenGain === 1;
  const mixed = isPlain ? null : audio.createMediaStreamDestination();
  if (mixed) mix.connect(mixed);
  return {
    stream: mixed ? mixed.stream : new MediaStream(streams[0]!.stream.getAudioTracks()),
    node: mix,
    audio,
    isMicrophone: !choice.screen,
    tracks: streams.flatMap(({ stream }) => stream.getAudioTracks()),
    setGains: (microphone, screen) => {
      const set = (kind: string, value: number) =>
        gains.get(kind)?.gain.setTargetAtTime(value, audio.currentTime, 0.02);
      set('microphone', microphone);
      set('screen', screen);
    },
    announce: async (sound) => {
      const played = audio.createBufferSource();
      played.buffer = await audio.decodeAudioData(sound);
      await audio.resume();
      played.connect(audio.destination);
      // A microphone alone hears it from the loudspeaker; with a tab, nothing but this brings it into the recording.
      if (choice.screen) played.connect(mix);
      played.start();
    },
    close: () => {
      stopAll();
      void audio.close();
    },
  };
}
