import { type Cleaning, isCleaning } from '@immeld/core/audio/cleaning/cleaner';

/** Leads the sound of an element through the cleaning; until the first step is wanted, nothing is put in its way. */
export class CleanedPlaying {
  private node: Promise<AudioWorkletNode> | null = null;
  private context: AudioContext | null = null;

  constructor(private readonly audio: HTMLAudioElement) {}

  /** Takes hold while the sound plays. Rejects where the browser cannot do it; the sound plays on as it is. */
  async set(cleaning: Cleaning): Promise<void> {
    if (!this.node && !isCleaning(cleaning)) return;
    this.node ??= this.open();
    (await this.node).port.postMessage(cleaning);
  }

  /** A browser lets sound out only after a press: this is called when one plays. */
  resume(): void {
    if (this.context?.state === 'suspended') void this.context.resume();
  }

  close(): void {
    if (this.context && this.context.state !== 'closed') void this.context.close();
  }

  private async open(): Promise<AudioWorkletNode> {
    const context = new AudioContext();
    try {
      await context.audioWorklet.addModule('/workers/cleanProcessor.js');
    } catch (error) {
      // The element is not led through it yet: it goes on playing by itself.
      void context.close();
      throw error;
    }
    const node = new AudioWorkletNode(context, 'immeld-clean');
    context.createMediaElementSource(this.audio).connect(node).connect(context.destination);
    this.context = context;
    this.resume();
    return node;
  }
}
