import { prepareDecoder } from './decoderGraph';
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

// Field numbers of onnx.proto: ModelProto.graph 7; GraphProto.node 1, initializer 5, input 11, output 12;
// NodeProto.input 1, output 2, name 3, op_type 4, attribute 5; AttributeProto.name 1, g 6; TensorProto.name 8, raw_data 9.
const VOCABULARY = 16;
const WIDTH = 6;
const HEADS = 3;
const MATRIX = 'model.decoder.embed_tokens.weight_merged_0';

const node = (op: string, name: string, inputs: string[], outputs: string[]): Field =>
  messageField(1, [
    ...inputs.map((i) => stringField(1, i)),
    ...outputs.map((o) => stringField(2, o)),
    stringField(3, name),
    stringField(4, op),
  ]);
const value = (field: number, name: string): Field => messageField(field, [stringField(1, name)]);
const tensor = (name: string, raw: Uint8Array, dims: readonly number[] = []): Field =>
  messageField(5, [...dims.map((d) => intField(1, d)), intField(2, 2), stringField(8, name), bytesField(9, raw)]);
/** ValueInfoProto with a tensor type: its shape says how many heads there are. */
const cachedKeys = messageField(11, [
  stringField(1, 'past_key_values.0.decoder.key'),
  messageField(2, [
    messageField(1, [
      messageField(
        2,
        [1, HEADS, 1, 2].map((d) => messageField(1, [intField(1, d)])),
      ),
    ]),
  ]),
]);

/** A merged decoder in miniature: the same names and branches, hardly any computation. */
function mergedDecoder(): Uint8Array {
  const raw = new Uint8Array(VOCABULARY * WIDTH);
  raw[1 * WIDTH + 2] = 77;
  const head = [
    node('Transpose', 't', [`${MATRIX}_quantized`], ['model.decoder.embed_tokens.weight_transposed_quantized']),
    node(
      'DequantizeLinear',
      'd',
      ['model.decoder.embed_tokens.weight_transposed_quantized'],
      ['model.decoder.embed_tokens.weight_transposed'],
    ),
    node('MatMul', '/proj_out/MatMul', ['hidden', 'model.decoder.embed_tokens.weight_transposed'], ['logits']),
  ];
  const cached = [
    node('Softmax', '/layers.0/encoder_attn/Softmax', ['past_key_values.0.encoder.key'], ['attention_0']),
    node('Add', 'a', ['attention_0', 'input_ids'], ['hidden']),
    node('Identity', 'unused', ['input_ids'], ['nobody_wants_this']),
    node('Identity', 'k', ['hidden'], ['present.0.decoder.key']),
    ...head,
  ];
  const first = [
    node('Shape', '/layers.0/encoder_attn/Shape', ['decoder_state'], ['size']),
    node('Reshape', 'r', ['encoder_hidden_states', 'size'], ['present.0.encoder.key']),
    node('Identity', 'h', ['input_ids'], ['hidden']),
    ...head,
  ];
  const outputs = (names: string[]) => names.map((n) => value(12, n));
  const branch = (name: string, body: Field[]): Field => messageField(5, [stringField(1, name), messageField(6, body)]);
  const choice = messageField(1, [
    stringField(1, 'use_cache_branch'),
    stringField(4, 'If'),
    branch('then_branch', [...cached, ...outputs(['logits', 'present.0.decoder.key', 'present.0.encoder.key'])]),
    branch('else_branch', [...first, ...outputs(['logits', 'present.0.encoder.key'])]),
  ]);
  const inputs = ['input_ids', 'encoder_hidden_states', 'past_key_values.0.encoder.key', 'use_cache_branch'].map((n) =>
    value(11, n),
  );
  const initializers = [
    tensor(`${MATRIX}_quantized`, raw, [VOCABULARY, WIDTH]),
    tensor(`${MATRIX}_scale`, new Uint8Array(4)),
    tensor(`${MATRIX}_zero_point`, new Uint8Array(1)),
  ];
  return buildMessage([intField(1, 8), messageField(7, [choice, ...initializers, ...inputs, cachedKeys])]);
}

const graphOf = (model: Uint8Array) => messagesOf(parseMessage(model), 7)[0]!;
const names = (graph: Field[], field: number) => messagesOf(graph, field).map((m) => stringOf(m, field === 5 ? 8 : 1));

describe('preparing the decoder', () => {
  const { step, crossKeyValues } = prepareDecoder(mergedDecoder());

  it('leaves no choice in the graphs and asks for no switch', () => {
    for (const model of [step, crossKeyValues]) {
      const graph = graphOf(model);
      expect(messagesOf(graph, 1).map((n) => stringOf(n, 4))).not.toContain('If');
      expect(names(graph, 11)).not.toContain('use_cache_branch');
      expect(stringOf(parseMessage(model), 1)).toBe('8');
    }
  });

  it('the step gives out logits, its own keys and the attention, and drops what nobody wants', () => {
    const graph = graphOf(step);
    expect(names(graph, 12)).toEqual(['logits', 'present.0.decoder.key', 'attention_0']);
    expect(messagesOf(graph, 1).flatMap((n) => stringsOf(n, 2))).not.toContain('nobody_wants_this');
    expect(names(graph, 11)).toEqual(['input_ids', 'past_key_values.0.encoder.key']);
  });

  it('multiplies by the output matrix as int8, laid the other way round', () => {
    const graph = graphOf(step);
    const kinds = messagesOf(graph, 1).map((n) => stringOf(n, 4));
    expect(kinds).toEqual(expect.arrayContaining(['DynamicQuantizeLinear', 'MatMulInteger']));
    expect(kinds).not.toContain('DequantizeLinear');
    expect(names(graph, 5)).not.toContain(`${MATRIX}_quantized`);
    const head = messagesOf(graph, 5).find((t) => stringOf(t, 8) === 'head_int8')!;
    const raw = head.find((f) => f.number === 9)!.value as Uint8Array;
    expect(raw[2 * VOCABULARY + 1]).toBe(77);
  });

  it('the attention has as many heads as the file says', () => {
    const output = messagesOf(graphOf(step), 12).find((o) => stringOf(o, 1) === 'attention_0')!;
    const shape = messagesOf(messagesOf(messagesOf(output, 2)[0]!, 1)[0]!, 2)[0]!;
    expect(intsOf(messagesOf(shape, 1)[1]!, 1)).toEqual([HEADS]);
  });

  it('the other graph gives out only keys and values of the sound, its batch size read off the encoder', () => {
    const graph = graphOf(crossKeyValues);
    expect(names(graph, 12)).toEqual(['present.0.encoder.key']);
    expect(names(graph, 11)).toEqual(['encoder_hidden_states']);
    const shape = messagesOf(graph, 1).find((n) => stringOf(n, 4) === 'Shape')!;
    expect(stringsOf(shape, 1)).toEqual(['encoder_hidden_states']);
  });

  it('refuses another file', () => {
    expect(() => prepareDecoder(buildMessage([intField(1, 8), messageField(7, [])]))).toThrow('no If node');
    expect(() => prepareDecoder(Uint8Array.of(0x12, 0x09))).toThrow(RangeError);
  });
});
