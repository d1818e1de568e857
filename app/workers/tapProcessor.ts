/**
 * Runs inside the sound thread: hands on what the microphone gives, as one channel in pieces of a tenth of a second; to the
 * page, and in 16 bits to whom the page has sent a port.
 */
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

class TapProcessor extends AudioWorkletProcessor {
  private piece = new Float32Array(Math.round(sampleRate / 10));
  private filled = 0;
  private journal: MessagePort | null = null;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<MessagePort>) => (this.journal = data);
  }

  process([channels]: Float32Array[][]): boolean {
    const [first, second] = channels ?? [];
    // A source that is muted by the system gives no channel at all; time goes on nevertheless.
    const length = first?.length ?? 128;
    for (let i = 0; i < length; i++) {
      this.piece[this.filled++] = first ? (second ? (first[i]! + second[i]!) / 2 : first[i]!) : 0;
      if (this.filled === this.piece.length) {
        if (this.journal) {
          const samples = Int16Array.from(this.piece, (value) => Math.max(-1, Math.min(1, value)) * 32767);
          this.journal.postMessage(samples, [samples.buffer]);
        }
        this.port.postMessage(this.piece, [this.piece.buffer]);
        this.piece = new Float32Array(Math.round(sampleRate / 10));
        this.filled = 0;
      }
    }
    return true;
  }
}

registerProcessor('immeld-tap', TapProcessor);
