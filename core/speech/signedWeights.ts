/**
 * Signed bytes instead of unsigned ones for the weights of integer matrix products: weights and zero point less 128 mean
 * the same numbers, and processors multiply unsigned by signed bytes much faster.
 */
import {
  type Field,
  buildMessage,
  bytesField,
  intField,
  intsOf,
  messageField,
  messagesOf,
  parseMessage,
  stringField,
  stringOf,
  stringsOf,
} from './protobuf';
import { GRAPH, MODEL_GRAPH, NODE, TENSOR } from './onnxFields';

const UINT8 = 2;
const INT8 = 3;
/** Inputs of MatMulInteger: the weights and their zero point. */
const WEIGHTS = 1;
const ZERO_POINT = 3;
const MIDDLE = 128;

const PLAIN = '_unsigned';

/** The same graph with signed weights wherever it multiplies integers; what else reads them keeps a copy of its own. */
export function withSignedWeights(file: Uint8Array): Uint8Array {
  const model = parseMessage(file);
  const at = model.findIndex((f) => f.number === MODEL_GRAPH);
  const graph = messagesOf(model, MODEL_GRAPH)[0];
  if (!graph) throw new Error('This is no ONNX model: it has no graph.');
  const tensors = new Map(messagesOf(graph, GRAPH.initializer).map((t) => [stringOf(t, TENSOR.name), t]));
  const isUnsigned = (name: string | undefined): boolean =>
    name !== undefined && tensors.has(name) && intsOf(tensors.get(name)!, TENSOR.dataType)[0] === UINT8;
  const signed = new Set<string>();
  const nodes = messagesOf(graph, GRAPH.node);
  for (const node of nodes) {
    if (stringOf(node, NODE.opType) !== 'MatMulInteger') continue;
    const inputs = stringsOf(node, NODE.input);
    if (!isUnsigned(inputs[WEIGHTS]) || !isUnsigned(inputs[ZERO_POINT])) continue;
    signed.add(inputs[WEIGHTS]!).add(inputs[ZERO_POINT]!);
  }
  const copied = new Set<string>();
  const rewired = nodes.map((node) => {
    if (stringOf(node, NODE.opType) === 'MatMulInteger') return node;
    return node.map((f) => {
      const name = f.number === NODE.input ? stringOf([f], NODE.input) : '';
      if (!signed.has(name)) return f;
      copied.add(name);
      return stringField(NODE.input, `${name}${PLAIN}`);
    });
  });
  const initializers = [...tensors].flatMap(([name, tensor]) => [
    messageField(GRAPH.initializer, signed.has(name) ? asSigned(tensor) : tensor),
    ...(copied.has(name) ? [messageField(GRAPH.initializer, named(tensor, `${name}${PLAIN}`))] : []),
  ]);
  model[at] = messageField(MODEL_GRAPH, [
    ...rewired.map((n) => messageField(GRAPH.node, n)),
    ...graph.filter((f) => f.number !== GRAPH.node && f.number !== GRAPH.initializer),
    ...initializers,
  ]);
  return buildMessage(model);
}

const named = (tensor: readonly Field[], name: string): Field[] =>
  tensor.map((f) => (f.number === TENSOR.name ? stringField(TENSOR.name, name) : f));

function asSigned(tensor: readonly Field[]): Field[] {
  const raw = tensor.find((f) => f.number === TENSOR.rawData)?.value;
  const values = raw instanceof Uint8Array ? raw : Uint8Array.from(intsOf(tensor, TENSOR.int32Data));
  return [
    ...tensor.filter((f) => ![TENSOR.dataType, TENSOR.rawData, TENSOR.int32Data].includes(f.number)),
    intField(TENSOR.dataType, INT8),
    // Less 128 in two's complement is the highest bit turned over.
    bytesField(
      TENSOR.rawData,
      values.map((v) => v ^ MIDDLE),
    ),
  ];
}
