/**
 * Prepares the merged decoder as it is published for fast decoding: its `If` chooses between a first step and a
 * cached step and dequantises the output matrix at every token. We cut out the branch we want, multiply by the
 * int8 output matrix directly and let the cross-attention out for word times.
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
import { ATTRIBUTE, GRAPH, MODEL_GRAPH, NODE, TENSOR } from './onnxFields';

const FLOAT = 1;
const ATTRIBUTE_INT = 2;

const OUTPUT_MATRIX = 'model.decoder.embed_tokens.weight_merged_0';
const TRANSPOSED = 'model.decoder.embed_tokens.weight_transposed';
/** Tells how many heads there are: [batch, heads, tokens, width]. */
const CACHED_KEYS = 'past_key_values.0.decoder.key';

type Node = Field[];

export type PreparedDecoder = {
  /** One token with cached keys and values in; logits, new keys and values, and cross-attention out. */
  step: Uint8Array;
  /** Encoder output in; cross-attention keys and values out, once per piece. */
  crossKeyValues: Uint8Array;
};

/** Makes the two graphs from the bytes of the merged decoder. Throws when the file is not of the expected make. */
export function prepareDecoder(merged: Uint8Array): PreparedDecoder {
  return {
    step: cutBranch(merged, 'then_branch', { int8Head: true, attention: true }),
    crossKeyValues: cutBranch(merged, 'else_branch', { int8Head: false, attention: false }),
  };
}

function cutBranch(
  merged: Uint8Array,
  branch: 'then_branch' | 'else_branch',
  { int8Head, attention }: { int8Head: boolean; attention: boolean },
): Uint8Array {
  const model = parseMessage(merged);
  const graphIndex = model.findIndex((f) => f.number === MODEL_GRAPH);
  const graph = messagesOf(model, MODEL_GRAPH)[0];
  const choice = graph && messagesOf(graph, GRAPH.node).find((n) => stringOf(n, NODE.opType) === 'If');
  const attribute = choice && messagesOf(choice, NODE.attribute).find((a) => stringOf(a, ATTRIBUTE.name) === branch);
  const body = attribute && messagesOf(attribute, ATTRIBUTE.graph)[0];
  if (!graph || !body) throw new Error('This is not a merged decoder: it has no If node with two branches.');

  const initializers = [...graph, ...body].filter((f) => f.number === GRAPH.initializer);
  const added: Field[] = [];
  let nodes: Node[] = messagesOf(body, GRAPH.node);
  if (int8Head) nodes = withInt8Head(nodes, graph, added);

  const crossOnly = branch === 'else_branch';
  if (crossOnly) nodes = nodes.map(batchSizeFromEncoder);
  const isEncoderState = (name: string) => name.includes('.encoder.');
  const outputs = body.filter(
    (f) =>
      f.number === GRAPH.output && isEncoderState(nameOf(f)) === crossOnly && (!crossOnly || nameOf(f) !== 'logits'),
  );
  if (attention) {
    const heads = headsOf(graph);
    outputs.push(...nodes.filter(isCrossAttention).map((n) => attentionOutput(stringsOf(n, NODE.output)[0]!, heads)));
  }

  nodes = liveNodes(nodes, new Set(outputs.map(nameOf)));
  const used = new Set(nodes.flatMap((n) => stringsOf(n, NODE.input)));
  model[graphIndex] = messageField(MODEL_GRAPH, [
    ...nodes.map((n) => messageField(GRAPH.node, n)),
    stringField(GRAPH.name, branch),
    ...initializers.filter((f) => used.has(stringOf(parse(f), TENSOR.name))),
    ...added,
    ...graph.filter((f) => f.number === GRAPH.input && used.has(nameOf(f))),
    ...outputs,
  ]);
  return buildMessage(model);
}

const parse = (field: Field): Field[] => (typeof field.value === 'bigint' ? [] : parseMessage(field.value));
/** Name of a ValueInfoProto field. */
const nameOf = (field: Field): string => stringOf(parse(field), 1);

function withInt8Head(nodes: Node[], graph: Field[], added: Field[]): Node[] {
  const matrix = messagesOf(graph, GRAPH.initializer).find(
    (t) => stringOf(t, TENSOR.name) === `${OUTPUT_MATRIX}_quantized`,
  );
  const raw = matrix?.find((f) => f.number === TENSOR.rawData)?.value;
  const dataType = matrix?.find((f) => f.number === TENSOR.dataType);
  const product = nodes.find((n) => stringOf(n, NODE.name) === '/proj_out/MatMul');
  const [vocabulary, width] = matrix ? intsOf(matrix, TENSOR.dims) : [];
  if (!(raw instanceof Uint8Array) || !vocabulary || !width || !dataType || !product) {
    throw new Error('This decoder has no quantised output matrix.');
  }
  if (raw.length !== vocabulary * width) throw new Error('The output matrix has not one byte for each value.');
  const transposed = new Uint8Array(raw.length);
  for (let row = 0; row < vocabulary; row++) {
    for (let column = 0; column < width; column++) {
      transposed[column * vocabulary + row] = raw[row * width + column]!;
    }
  }
  added.push(
    messageField(GRAPH.initializer, [
      intField(TENSOR.dims, width),
      intField(TENSOR.dims, vocabulary),
      dataType,
      stringField(TENSOR.name, 'head_int8'),
      bytesField(TENSOR.rawData, transposed),
    ]),
  );
  const hidden = stringsOf(product, NODE.input)[0]!;
  const kept = nodes.filter((n) => {
    const dequantises = stringOf(n, NODE.opType) === 'DequantizeLinear' && stringOf(n, NODE.output) === TRANSPOSED;
    return n !== product && !dequantises && stringOf(n, NODE.output) !== `${TRANSPOSED}_quantized`;
  });
  return [
    ...kept,
    node('DynamicQuantizeLinear', [hidden], ['head_in', 'head_in_scale', 'head_in_zero']),
    node('MatMulInteger', ['head_in', 'head_int8', 'head_in_zero', `${OUTPUT_MATRIX}_zero_point`], ['head_sum']),
    node('Cast', ['head_sum'], ['head_float'], [castToFloat]),
    node('Mul', ['head_in_scale', `${OUTPUT_MATRIX}_scale`], ['head_scale']),
    node('Mul', ['head_float', 'head_scale'], ['logits']),
  ];
}

const castToFloat: Field[] = [
  stringField(ATTRIBUTE.name, 'to'),
  intField(ATTRIBUTE.int, FLOAT),
  intField(ATTRIBUTE.type, ATTRIBUTE_INT),
];

function node(opType: string, inputs: string[], outputs: string[], attributes: Field[][] = []): Node {
  return [
    ...inputs.map((name) => stringField(NODE.input, name)),
    ...outputs.map((name) => stringField(NODE.output, name)),
    stringField(NODE.name, `${opType}_${outputs[0]}`),
    stringField(NODE.opType, opType),
    ...attributes.map((a) => messageField(NODE.attribute, a)),
  ];
}

/** Without the decoder's own state the batch size has to be read off the encoder's output. */
function batchSizeFromEncoder(n: Node): Node {
  const readsShape = stringOf(n, NODE.opType) === 'Shape' && stringOf(n, NODE.name).includes('encoder_attn');
  return readsShape
    ? n.map((f) => (f.number === NODE.input ? stringField(NODE.input, 'encoder_hidden_states') : f))
    : n;
}

const isCrossAttention = (n: Node): boolean =>
  stringOf(n, NODE.opType) === 'Softmax' && stringOf(n, NODE.name).includes('encoder_attn');

/** ValueInfoProto of float32 [batch, heads, tokens, frames]. */
function attentionOutput(name: string, heads: number): Field {
  const dimension = (d: number | string) =>
    messageField(1, [typeof d === 'number' ? intField(1, d) : stringField(2, d)]);
  const shape = messageField(2, ['batch_size', heads, 'tokens', 'frames'].map(dimension));
  return messageField(GRAPH.output, [
    stringField(1, name),
    messageField(2, [messageField(1, [intField(1, FLOAT), shape])]),
  ]);
}

function headsOf(graph: Field[]): number {
  const input = messagesOf(graph, GRAPH.input).find((i) => stringOf(i, 1) === CACHED_KEYS);
  const tensorType = input && messagesOf(messagesOf(input, 2)[0] ?? [], 1)[0];
  const dimensions = tensorType ? messagesOf(messagesOf(tensorType, 2)[0] ?? [], 1) : [];
  const heads = dimensions[1] ? intsOf(dimensions[1], 1)[0] : undefined;
  if (!heads) throw new Error('This decoder does not say how many heads it has.');
  return heads;
}

/** Walks back from the wanted outputs and drops every node that does not lead to one. */
function liveNodes(nodes: Node[], wanted: Set<string>): Node[] {
  const live: Node[] = [];
  for (const n of [...nodes].reverse()) {
    if (!stringsOf(n, NODE.output).some((o) => wanted.has(o))) continue;
    for (const name of stringsOf(n, NODE.input)) wanted.add(name);
    live.push(n);
  }
  return live.reverse();
}
