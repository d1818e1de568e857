import {
  Wire,
  buildMessage,
  intField,
  messageField,
  messagesOf,
  parseMessage,
  stringField,
  stringOf,
} from './protobuf';

describe('protobuf at wire level', () => {
  it('reads the examples of the encoding documentation', () => {
    // Protocol Buffers documentation, "Encoding": field 1 = 150 is 08 96 01; field 2 = "testing" is 12 07 74 65 …
    expect(parseMessage(Uint8Array.of(0x08, 0x96, 0x01))).toEqual([{ number: 1, wire: Wire.Varint, value: 150n }]);
    const testing = Uint8Array.of(0x12, 0x07, 0x74, 0x65, 0x73, 0x74, 0x69, 0x6e, 0x67);
    expect(stringOf(parseMessage(testing), 2)).toBe('testing');
    expect(buildMessage([intField(1, 150)])).toEqual(Uint8Array.of(0x08, 0x96, 0x01));
    expect(buildMessage([stringField(2, 'testing')])).toEqual(testing);
  });

  it('puts together what it took apart', () => {
    const message = buildMessage([intField(3, 7), messageField(4, [stringField(1, 'ä'), intField(2, 1 << 20)])]);
    expect(buildMessage(parseMessage(message))).toEqual(message);
    expect(stringOf(messagesOf(parseMessage(message), 4)[0]!, 1)).toBe('ä');
  });

  it('refuses a message that breaks off', () => {
    expect(() => parseMessage(Uint8Array.of(0x12, 0x07, 0x74))).toThrow(RangeError);
    expect(() => parseMessage(Uint8Array.of(0x80))).toThrow(RangeError);
  });
});
