import type { AddressInfo } from 'node:net';
import { type ParsedMail, simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

/** A mail server outside: takes what is for Harrowmere and keeps it as it came. */
export async function outsideMail() {
  const got: { mail: ParsedMail; raw: string }[] = [];
  const server = new SMTPServer({
    ...{ authOptional: true, disabledCommands: ['STARTTLS', 'AUTH'], logger: false },
    onRcptTo: ({ address }, _session, done) =>
      address.endsWith('@harrowmere.example') ? done() : done(new Error('550 nobody of this name')),
    onData: (stream, _session, done) => {
      const parts: Buffer[] = [];
      stream.on('data', (bytes: Buffer) => parts.push(bytes));
      stream.on('end', async () => {
        const raw = Buffer.concat(parts);
        got.push({ mail: await simpleParser(raw), raw: raw.toString('latin1') });
        done();
      });
    },
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.server.address() as AddressInfo;
  return { got, port, close: () => new Promise<void>((resolve) => server.close(resolve)) };
}
