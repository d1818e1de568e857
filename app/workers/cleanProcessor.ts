/** Runs inside the sound thread: cleans what is played, as the choices say that arrive by message. */
import { Cleaner, type Cleaning, isCleaning } from '@immeld/core/audio/cleaning/cleaner';

declare const sampleRate: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

class CleanProcessor extends AudioWorkletProcessor {
  private cleaners: Cleaner[] = [];
  private cleaning: Cleaning | null = null;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Cleaning>) => {
      this.cleaning = isCleaning(data) ? data : null;
      this.cleaners = [];
    };
  }

  process([input]: Float32Array[][], [output]: Float32Array[][]): boolean {
    for (const [c, into] of (output ?? []).entries()) {
      const samples = input?.[c];
      if (!samples) continue;
      if (!this.cleaning) into.set(samples);
      else (this.cleaners[c] ??= new Cleaner(sampleRate, this.cleaning)).process(samples, into);
    }
    return true;
  }
}

registerProcessor('immeld-clean', CleanProcessor);
