/** Field numbers of ONNX's `onnx.proto`: ModelProto, GraphProto, NodeProto, AttributeProto, TensorProto. */
export const MODEL_GRAPH = 7;
export const GRAPH = { node: 1, name: 2, initializer: 5, input: 11, output: 12 };
export const NODE = { input: 1, output: 2, name: 3, opType: 4, attribute: 5 };
export const ATTRIBUTE = { name: 1, int: 3, graph: 6, type: 20 };
export const TENSOR = { dims: 1, dataType: 2, int32Data: 5, name: 8, rawData: 9 };
