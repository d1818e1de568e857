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
import { withSignedWeights } from './signedWeights';

// Field numbers of onnx.proto, as in decoderGraph.test.ts; TensorProto.int32_data is 5, data types: 2 uint8, 3 int8.
const node = (op: string, inputs: string[], output: string): Field =>
  messageField(1, [...inputs.map((i) => stringField(1, i)), stringField(2, output), stringField(4, op)]);
const tensor = (name: string, fields: Field[]): Field =>
  messageField(5, [intField(2, 2), stringField(8, name), ...fields]);

/** One integer product; the weights are read by something else too, their zero point is stored as an integer. */
const model = buildMessage([
  intField(1, 8),
  messageField(7, [
    node('MatMulInteger', ['x', 'weights', 'x_zero', 'zero'], 'y'),
    node('Gather', ['weights', 'ids'], 'z'),
    tensor('weights', [bytesField(9, Uint8Array.of(0, 127, 128, 255))]),
    tensor('zero', [intField(5, 130)]),
    tensor('other', [bytesField(9, Uint8Array.of(200))]),
  ]),
]);

const graph = messagesOf(parseMessage(withSignedWeights(model)), 7)[0]!;
const tensors = new Map(messagesOf(graph, 5).map((t) => [stringOf(t, 8), t]));
const bytesOf = (name: string) => [...(tensors.get(name)!.find((f) => f.number === 9)!.value as Uint8Array)];
const signed = (name: string) => bytesOf(name).map((b) => (b << 24) >> 24);

test('weights and zero point of an integer product are signed and mean the same', () => {
  expect(signed('weights')).toEqual([-128, -1, 0, 127]);
  expect(signed('zero')).toEqual([2]);
  expect(['weights', 'zero'].map((n) => intsOf(tensors.get(n)!, 2)[0])).toEqual([3, 3]);
});

test('what else reads them keeps them as they were', () => {
  const gather = messagesOf(graph, 1).find((n) => stringOf(n, 4) === 'Gather')!;
  const [name = ''] = stringsOf(gather, 1);
  expect(bytesOf(name)).toEqual([0, 127, 128, 255]);
  expect(intsOf(tensors.get(name)!, 2)).toEqual([2]);
  expect(bytesOf('other')).toEqual([200]);
});

test('a file that is no model is refused', () => {
  expect(() => withSignedWeights(buildMessage([intField(1, 8)]))).toThrow('no graph');
});
