import type { Readable } from 'node:stream';

/** An object with fifty thousand words has about five megabytes. */
export const MAX_LINE_BYTES = 64 * 1024 ** 2;

/** Thrown at a line that is longer than any that Immeld writes. */
export class LineTooLong extends Error {}

const END = 0x0a;

/**
 * The lines of a stream of UTF-8, one at a time; never more than one of them is held.
 * @throws LineTooLong before a line of more than `longest` bytes is put together
 */
export async function* linesOf(source: Readable, longest = MAX_LINE_BYTES): AsyncGenerator<string> {
  let held: Buffer[] = [];
  let length = 0;
  const taken = () => {
    const line = Buffer.concat(held, length).toString('utf8');
    held = [];
    length = 0;
    return line.endsWith('\r') ? line.slice(0, -1) : line;
  };
  const hold = (bytes: Buffer) => {
    length += bytes.length;
    if (length > longest) throw new LineTooLong('A line is longer than any that Immeld writes.');
    held.push(bytes);
  };
  for await (const part of source) {
    let bytes = part as Buffer;
    for (let end = bytes.indexOf(END); end >= 0; end = bytes.indexOf(END)) {
      hold(bytes.subarray(0, end));
      yield taken();
      bytes = bytes.subarray(end + 1);
    }
    if (bytes.length) hold(bytes);
  }
  if (length) yield taken();
}
