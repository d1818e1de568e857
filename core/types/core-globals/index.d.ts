/** The few globals that every JavaScript runtime has and that the core may use. Neither the DOM nor Node is in scope. */
declare class TextDecoder {
  decode(bytes?: Uint8Array): string;
}
declare class TextEncoder {
  encode(text?: string): Uint8Array<ArrayBuffer>;
}
interface AbortSignal {
  readonly aborted: boolean;
  throwIfAborted(): void;
}
