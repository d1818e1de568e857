/**
 * What the recogniser needs from outside: something that runs an ONNX graph.
 * The server gives onnxruntime-node, a browser worker onnxruntime-web; the code above this line is the same.
 */
/** A dense tensor in row-major order; `data.length` is the product of `dims`. */
export interface Tensor {
  readonly type: string;
  readonly dims: readonly number[];
  readonly data: unknown;
}

/** One loaded graph. Not safe for two runs at the same time. */
export interface ModelSession {
  readonly inputNames: readonly string[];
  readonly outputNames: readonly string[];
  /** Runs the graph. Rejects with the runtime's error when names, types or shapes do not fit. */
  run(feeds: Record<string, Tensor>): Promise<Record<string, Tensor>>;
  release(): Promise<void>;
}

export interface ModelRuntime {
  float32(data: Float32Array, dims: number[]): Tensor;
  int64(data: BigInt64Array, dims: number[]): Tensor;
  /** Loads a graph from the bytes of an ONNX file. */
  open(modelBytes: Uint8Array): Promise<ModelSession>;
}

/** The named tensor of a result as floats. Throws when the graph did not give it out. */
export function floatsOf(result: Record<string, Tensor>, name: string): Float32Array {
  const tensor = result[name];
  if (!tensor || !(tensor.data instanceof Float32Array)) {
    throw new Error(`The model gave no float32 output "${name}".`);
  }
  return tensor.data;
}
