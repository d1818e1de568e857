import type { OpenSources } from './sources';

const FALLBACK_MS = 100;

/** Calls back with samples from -1 to 1 as one channel, and their rate in hertz. */
export type PcmStream = (listen: (samples: Float32Array, rate: number) => void) => void;

/**
 * Hears the sound in tenths of a second: by the sound thread, or where that cannot be loaded, for the level only.
 * @param journal gets the same straight from the sound thread, in 16 bits
 */
export async function openPcmStream(
  { audio, node }: OpenSources,
  journal: MessagePort | null = null,
): Promise<PcmStream> {
  try {
    await audio.audioWorklet.addModule('/workers/tapProcessor.js');
    const tap = new AudioWorkletNode(audio, 'immeld-tap', { numberOfOutputs: 0 });
    if (journal) tap.port.postMessage(journal, [journal]);
    node.connect(tap);
    return (listen) => {
      tap.port.onmessage = ({ data }: MessageEvent<Float32Array>) => listen(data, audio.sampleRate);
    };
  } catch {
    const analyser = audio.createAnalyser();
    analyser.fftSize = 8192;
    node.connect(analyser);
    return (listen) => {
      let before = performance.now();
      const timer = setInterval(() => {
        if (audio.state === 'closed') return clearInterval(timer);
        const now = performance.now();
        const samples = new Float32Array(analyser.fftSize);
        analyser.getFloatTimeDomainData(samples);
        // The newest samples stand for all that passed since the last look.
        const count = Math.round(((now - before) / 1000) * audio.sampleRate);
        const heard = new Float32Array(count);
        heard.set(samples.subarray(Math.max(0, samples.length - count)).subarray(0, count));
        listen(heard, audio.sampleRate);
        before = now;
      }, FALLBACK_MS);
    };
  }
}
