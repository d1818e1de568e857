/**
 * Protocol Buffers at wire level: enough to take a message apart and put it together again without its schema.
 * Source: Protocol Buffers documentation, "Encoding" (varint, I64, LEN and I32 wire types).
 */
export const enum Wire {
  Varint = 0,
  Fixed64 = 1,
  Length = 2,
  Fixed32 = 5,
}

/** One field of a message: a bigint for varints, the raw bytes for everything else. */
export type Field = { number: number; wire: Wire; value: bigint | Uint8Array };

const utf8 = { read: new TextDecoder(), write: new TextEncoder() };

function readVarint(bytes: Uint8Array, at: number): [value: bigint, next: number] {
  let value = 0n;
  let shift = 0n;
  for (;;) {
    const byte = bytes[at++];
    if (byte === undefined) throw new RangeError('A varint runs past the end of the message.');
    value |= BigInt(byte & 127) << shift;
    if (byte < 128) return [value, at];
    shift += 7n;
  }
}

function varintBytes(value: bigint): number[] {
  let rest = BigInt.asUintN(64, value);
  const bytes: number[] = [];
  do {
    const low = Number(rest & 127n);
    rest >>= 7n;
    bytes.push(rest ? low | 128 : low);
  } while (rest);
  return bytes;
}

/** Takes a message apart; order is kept. Throws RangeError on a truncated message. */
export function parseMessage(bytes: Uint8Array): Field[] {
  const fields: Field[] = [];
  let at = 0;
  while (at < bytes.length) {
    let key: bigint;
    [key, at] = readVarint(bytes, at);
    const number = Number(key >> 3n);
    const wire = Number(key & 7n) as Wire;
    if (wire === Wire.Varint) {
      let value: bigint;
      [value, at] = readVarint(bytes, at);
      fields.push({ number, wire, value });
      continue;
    }
    let length: number;
    if (wire === Wire.Length) {
      let long: bigint;
      [long, at] = readVarint(bytes, at);
      length = Number(long);
    } else if (wire === Wire.Fixed64) length = 8;
    else if (wire === Wire.Fixed32) length = 4;
    else throw new RangeError(`Unknown wire type ${wire}.`);
    if (at + length > bytes.length) throw new RangeError('A field runs past the end of the message.');
    fields.push({ number, wire, value: bytes.subarray(at, at + length) });
    at += length;
  }
  return fields;
}

/** Puts a message together; the inverse of `parseMessage`. */
export function buildMessage(fields: readonly Field[]): Uint8Array {
  const heads: number[][] = [];
  let size = 0;
  for (const { number, wire, value } of fields) {
    const head = varintBytes((BigInt(number) << 3n) | BigInt(wire));
    if (typeof value === 'bigint') head.push(...varintBytes(value));
    else {
      if (wire === Wire.Length) head.push(...varintBytes(BigInt(value.length)));
      size += value.length;
    }
    size += head.length;
    heads.push(head);
  }
  const out = new Uint8Array(size);
  let at = 0;
  fields.forEach(({ value }, i) => {
    const head = heads[i]!;
    out.set(head, at);
    at += head.length;
    if (typeof value !== 'bigint') {
      out.set(value, at);
      at += value.length;
    }
  });
  return out;
}

export const stringField = (number: number, text: string): Field => ({
  number,
  wire: Wire.Length,
  value: utf8.write.encode(text),
});
export const intField = (number: number, value: number): Field => ({
  number,
  wire: Wire.Varint,
  value: BigInt(value),
});
export const bytesField = (number: number, value: Uint8Array): Field => ({ number, wire: Wire.Length, value });
export const messageField = (number: number, fields: readonly Field[]): Field =>
  bytesField(number, buildMessage(fields));

const text = (field: Field): string =>
  typeof field.value === 'bigint' ? String(field.value) : utf8.read.decode(field.value);

export const stringsOf = (message: readonly Field[], number: number): string[] =>
  message.filter((f) => f.number === number).map(text);

export const stringOf = (message: readonly Field[], number: number): string => stringsOf(message, number)[0] ?? '';

/** Integers of a field, packed or one by one. */
export const intsOf = (message: readonly Field[], number: number): number[] =>
  message.flatMap((f) => {
    if (f.number !== number) return [];
    if (typeof f.value === 'bigint') return [Number(f.value)];
    const values: number[] = [];
    for (let at = 0; at < f.value.length;) {
      let value: bigint;
      [value, at] = readVarint(f.value, at);
      values.push(Number(value));
    }
    return values;
  });

/** The sub-messages with this field number, taken apart. */
export const messagesOf = (message: readonly Field[], number: number): Field[][] =>
  message.flatMap((f) => (f.number === number && typeof f.value !== 'bigint' ? [parseMessage(f.value)] : []));
