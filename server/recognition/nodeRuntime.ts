import type { ModelRuntime, ModelSession, Tensor } from '@immeld/core/speech/session';
import * as ort from 'onnxruntime-node';

/** onnxruntime-node behind the core's session interface. One thread a session: two workers beat two threads. */
export const nodeRuntime: ModelRuntime = {
  float32: (data, dims) => new ort.Tensor('float32', data, dims),
  int64: (data, dims) => new ort.Tensor('int64', data, dims),
  async open(modelBytes): Promise<ModelSession> {
    const session = await ort.InferenceSession.create(modelBytes, {
      intraOpNumThreads: 1,
      interOpNumThreads: 1,
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
