/** Recognises speech on the device, in a thread of its own, with the files of a pack that was fetched before. */
import { Resampler } from '@immeld/core/audio/resampler';
import { LiveTranscriber } from '@immeld/core/speech/liveTranscriber';
import { type PreparedNames, prepareNames } from '@immeld/core/speech/names/nameCandidates';
import { Recogniser } from '@immeld/core/speech/recogniser';
import { Tokenizer } from '@immeld/core/speech/tokenizer';
import { SAMPLE_RATE_HZ, type TranscriberModels } from '@immeld/core/speech/transcriber';
import { type FromLiveWorker, PACK_CACHE, type ToLiveWorker } from './liveMessages';
import { prepareRuntime, webRuntime } from './webRuntime';

const say = (message: FromLiveWorker) => self.postMessage(message);

type ForSession = Extract<ToLiveWorker, { type: 'sound' | 'end' }>;
type Session = {
  number: number;
  transcriber: LiveTranscriber;
  resampler: Resampler | null;
  heardSamples: number;
  hasEnded: boolean;
};

let names: PreparedNames = [];
let models: TranscriberModels | null = null;
let session: Session | null = null;
/** Sound that came before the models were there. */
let early: ForSession[] = [];
let isWorking = false;

async function load({ files, glue }: Extract<ToLiveWorker, { type: 'load' }>): Promise<void> {
  const started = performance.now();
  const cache = await caches.open(PACK_CACHE);
  const bytes = async (name: string): Promise<ArrayBuffer> => {
    const file = files.find((f) => f.name === name);
    const kept = file && (await cache.match(file.address));
    if (!kept) throw new Error('The pack is incomplete. Remove it and download it again.');
    return kept.arrayBuffer();
  };
  // All are read at once: the graphs come from the disk while the runtime is being compiled, which takes longest.
  const graphs = ['encoder.onnx', 'cross-key-values.onnx', 'step.onnx', 'speech-detector.onnx'] as const;
  const [runtime, vocabulary] = [bytes('runtime.wasm'), bytes('vocabulary.json')];
  const read = new Map(graphs.map((name) => [name, bytes(name)]));
  for (const reading of [vocabulary, ...read.values()]) reading.catch(() => undefined);
  prepareRuntime(await runtime, glue);
  const open = async (name: (typeof graphs)[number]) => webRuntime.open(new Uint8Array(await read.get(name)!));
  const pieces = JSON.parse(new TextDecoder().decode(await vocabulary)) as string[];
  models = {
    runtime: webRuntime,
    tokenizer: new Tokenizer(pieces),
    encoder: await open('encoder.onnx'),
    crossKeyValues: await open('cross-key-values.onnx'),
    step: await open('step.onnx'),
    detector: await open('speech-detector.onnx'),
  };
  say({ type: 'ready', loadMs: Math.round(performance.now() - started) });
  const waiting = early;
  early = [];
  if (waiting.length === 0) await warmUp(models);
  waiting.forEach(take);
}

/** The first use of a model takes much longer than the others: it is made before somebody speaks. */
async function warmUp(loaded: TranscriberModels): Promise<void> {
  isWorking = true;
  try {
    await new Recogniser(loaded).recognise(new Float32Array(SAMPLE_RATE_HZ), () => true, {});
  } finally {
    isWorking = false;
  }
  // What was said meanwhile.
  await work();
}

function take(message: ForSession): void {
  if (!models) {
    early.push(message);
    return;
  }
  if (message.type === 'end') {
    if (session?.number !== message.session) return say({ type: 'ended', session: message.session });
    session.hasEnded = true;
    session.transcriber.end();
  } else {
    if (session?.number !== message.session) {
      session = {
        number: message.session,
        transcriber: new LiveTranscriber(models, names),
        resampler: null,
        heardSamples: 0,
        hasEnded: false,
      };
    }
    session.resampler ??= new Resampler(message.rate, SAMPLE_RATE_HZ);
    const samples = session.resampler.push(message.samples);
    session.heardSamples += samples.length;
    session.transcriber.push(samples);
  }
  void work();
}

async function work(): Promise<void> {
  if (isWorking) return;
  isWorking = true;
  try {
    for (;;) {
      const current = session;
      if (!current) return;
      const update = await current.transcriber.advance();
      if (current !== session) continue;
      if (update) {
        const lagMs = Math.round((current.heardSamples / SAMPLE_RATE_HZ) * 1000) - update.heardMs;
        say({ type: 'text', session: current.number, lagMs, ...update });
        // Messages with further sound get in between two decodings.
        await new Promise((resolve) => setTimeout(resolve));
      } else if (current.hasEnded) {
        session = null;
        say({ type: 'ended', session: current.number });
        return;
      } else return;
    }
  } finally {
    isWorking = false;
  }
}

const tell = (error: unknown) =>
  say({ type: 'problem', message: error instanceof Error ? error.message : String(error) });

self.addEventListener('message', ({ data }: MessageEvent<ToLiveWorker>) => {
  if (data.type === 'load') load(data).catch(tell);
  else if (data.type === 'names') names = prepareNames(data.names);
  else {
    try {
      take(data);
    } catch (error) {
      tell(error);
    }
  }
});
self.addEventListener('unhandledrejection', (event) => tell(event.reason));
