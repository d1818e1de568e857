import { type ReactNode, createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { localTime } from '../ui/dates';
import { useUploads } from './uploads';

export type CaptureState = 'idle' | 'starting' | 'recording' | 'paused';
type Capture = {
  state: CaptureState;
  elapsedMs: number;
  /** Loudest value of each tenth of a second so far, 0 to 100; the newest last. */
  peaks: number[];
  level: 'good' | 'too quiet' | 'clipping';
  /** Why it cannot record, and the way round it. */
  problem: string | null;
  start: () => Promise<void>;
  pause: () => void;
  resume: () => void;
  finish: () => void;
  throwAway: () => void;
  closeProblem: () => void;
};

const CaptureContext = createContext<Capture | null>(null);
export function useCapture(): Capture {
  const capture = useContext(CaptureContext);
  if (!capture) throw new Error('useCapture is used outside CaptureProvider.');
  return capture;
}

const PIECE_MS = 1000;
const METER_MS = 100;
const SHOWN_PEAKS = 600;
const QUIET_BELOW = 3;
const CLIPPED_FROM = 99;
const JUDGED_PEAKS = 30;

type Session = {
  recorder: MediaRecorder;
  stream: MediaStream;
  audio: AudioContext;
  pieces: Blob[];
  startedAt: Date;
  /** Milliseconds recorded before the last pause, and when it went on. */
  before: number;
  since: number | null;
  meter: number;
  isKept: boolean;
};

const elapsedOf = (s: Session): number => s.before + (s.since === null ? 0 : performance.now() - s.since);

/** Why the microphone could not be opened, as a sentence with what to do. */
export function microphoneProblem(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (!window.isSecureContext) {
    return 'Browsers allow the microphone only on secure pages. Open Immeld by https or at localhost.';
  }
  if (name === 'NotAllowedError') {
    return 'The browser does not allow Immeld to use the microphone. Allow it in the site settings beside the address, then press again.';
  }
  if (name === 'NotFoundError') return 'No microphone was found. Connect one, or bring in a sound file instead.';
  if (name === 'NotReadableError') return 'Another program holds the microphone. Close it there, then press again.';
  return 'The microphone could not be opened. Bring in a sound file instead, or try another browser.';
}

export function CaptureProvider({ children }: { children: ReactNode }) {
  const { send } = useUploads();
  const session = useRef<Session | null>(null);
  const [state, setState] = useState<CaptureState>('idle');
  const [elapsedMs, setElapsed] = useState(0);
  const [peaks, setPeaks] = useState<number[]>([]);
  const [problem, setProblem] = useState<string | null>(null);

  const end = useCallback((isKept: boolean) => {
    const current = session.current;
    if (!current) return;
    current.isKept = isKept;
    if (current.since !== null) current.before += performance.now() - current.since;
    current.since = null;
    current.recorder.stop();
  }, []);

  const start = useCallback(async () => {
    if (session.current) return;
    setProblem(null);
    setState('starting');
    try {
      if (!navigator.mediaDevices) throw new Error('insecure');
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      const type = ['audio/webm;codecs=opus', 'audio/mp4', 'audio/ogg;codecs=opus'].find((t) =>
        MediaRecorder.isTypeSupported(t),
      );
      const recorder = new MediaRecorder(stream, type ? { mimeType: type } : {});
      const audio = new AudioContext();
      const analyser = audio.createAnalyser();
      analyser.fftSize = 4096;
      audio.createMediaStreamSource(stream).connect(analyser);
      const window_ = new Float32Array(analyser.fftSize);
      const current: Session = {
        ...{
          recorder,
          stream,
          audio,
          pieces: [],
          startedAt: new Date(),
          before: 0,
          since: performance.now(),
          isKept: true,
        },
        meter: window.setInterval(() => {
          setElapsed(elapsedOf(current));
          if (current.since === null) return;
          analyser.getFloatTimeDomainData(window_);
          const peak = window_.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
          setPeaks((all) => [...all.slice(-SHOWN_PEAKS + 1), Math.min(100, Math.round(peak * 100))]);
        }, METER_MS),
      };
      recorder.ondataavailable = (event) => {
        if (event.data.size) current.pieces.push(event.data);
      };
      recorder.onstop = () => {
        window.clearInterval(current.meter);
        stream.getTracks().forEach((track) => track.stop());
        void audio.close();
        session.current = null;
        setState('idle');
        setElapsed(0);
        setPeaks([]);
        const sound = new Blob(current.pieces, { type: recorder.mimeType });
        if (!current.isKept || sound.size === 0) return;
        const extension = recorder.mimeType.includes('mp4')
          ? 'm4a'
          : recorder.mimeType.includes('ogg')
            ? 'ogg'
            : 'webm';
        const startedAt = localTime(current.startedAt);
        const name = `Spoken ${startedAt.slice(0, 10)} ${startedAt.slice(11, 16).replace(':', '.')}.${extension}`;
        send(sound, name, { startedAt, durationMs: current.before, source: 'speak' });
      };
      stream.getAudioTracks()[0]?.addEventListener('ended', () => {
        setProblem('The microphone was taken away. What was recorded until then is kept.');
        end(true);
      });
      recorder.start(PIECE_MS);
      session.current = current;
      setState('recording');
    } catch (error) {
      setState('idle');
      setProblem(microphoneProblem(error));
    }
  }, [end, send]);

  const pause = useCallback(() => {
    const current = session.current;
    if (!current || current.since === null) return;
    current.before += performance.now() - current.since;
    current.since = null;
    current.recorder.pause();
    setState('paused');
  }, []);

  const resume = useCallback(() => {
    const current = session.current;
    if (!current || current.since !== null) return;
    current.since = performance.now();
    current.recorder.resume();
    setState('recording');
  }, []);

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (session.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, []);

  const value = useMemo<Capture>(() => {
    const recent = peaks.slice(-JUDGED_PEAKS);
    const loudest = Math.max(...recent, 0);
    const level =
      recent.filter((p) => p >= CLIPPED_FROM).length > 1
        ? 'clipping'
        : recent.length >= JUDGED_PEAKS && loudest < QUIET_BELOW
          ? 'too quiet'
          : 'good';
    return {
      ...{ state, elapsedMs, peaks, level, problem, start, pause, resume },
      finish: () => end(true),
      throwAway: () => end(false),
      closeProblem: () => setProblem(null),
    };
  }, [state, elapsedMs, peaks, problem, start, pause, resume, end]);
  return <CaptureContext.Provider value={value}>{children}</CaptureContext.Provider>;
}
