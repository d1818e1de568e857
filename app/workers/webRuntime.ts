import type { ModelRuntime, ModelSession, Tensor } from '@immeld/core/speech/session';
import * as ort from 'onnxruntime-web/wasm';

/** onnxruntime-web behind the core's session interface, inside a worker. */
export const webRuntime: ModelRuntime = {
  float32: (data, dims) => new ort.Tensor('float32', data, dims),
  int64: (data, dims) => new ort.Tensor('int64', data, dims),
  async open(modelBytes): Promise<ModelSession> {
    const session = await ort.InferenceSession.create(modelBytes, {
      executionProviders: ['wasm'],
      logSeverityLevel: 3,
    });
    return {
      inputNames: session.inputNames,
      outputNames: session.outputNames,
      run: async (feeds) => (await session.run(feeds as Record<string, ort.Tensor>)) as Record<string, Tensor>,
      release: () => session.release(),
    };
  },
};

/** One thread unless the device has cores to spare: on two busy cores a second thread makes it slower. */
const CORES_FOR_TWO_THREADS = 4;

/** @param wasm the runtime's own program, from the pack; `glue` is the address of the script beside it */
export function prepareRuntime(wasm: ArrayBuffer, glue: string): void {
  ort.env.wasm.wasmBinary = wasm;
  ort.env.wasm.wasmPaths = { mjs: glue };
  ort.env.wasm.numThreads = self.crossOriginIsolated && navigator.hardwareConcurrency >= CORES_FOR_TWO_THREADS ? 2 : 1;
}
