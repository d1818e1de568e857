import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { StandInMail } from '@immeld/core/contract/mailEndpoints';
import { type AddressObject, simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { log } from '../log';

const MAX_KEPT = 50;
/** Which account sent a mail, so that nobody else sees it in the stand-in. */
export const SENDER_HEADER = 'X-Immeld-Sender';

const addressesOf = (to: AddressObject | AddressObject[] | undefined): string[] =>
  [to ?? []].flat().flatMap((one) => one.value.map((v) => v.address ?? ''));

/** A simulated mail server: it speaks SMTP (RFC 5321) on this machine, keeps what it gets in memory, and passes nothing on. */
export class StandInMailbox {
  private readonly kept: { sender: string; mail: StandInMail }[] = [];
  private readonly server = new SMTPServer({
    ...{ authOptional: true, disabledCommands: ['STARTTLS', 'AUTH'], disableReverseLookup: true, logger: false },
    onData: (stream, _session, done) => {
      simpleParser(stream).then(
        (mail) => {
          this.kept.unshift({
            sender: String(mail.headers.get(SENDER_HEADER.toLowerCase()) ?? ''),
            mail: {
              ...{ id: randomUUID(), receivedAt: new Date().toISOString(), to: addressesOf(mail.to) },
              ...{ subject: mail.subject ?? '', text: mail.text ?? '' },
              files: mail.attachments.map(({ filename, size }) => ({ name: filename ?? 'file', sizeBytes: size })),
            },
          });
          this.kept.splice(MAX_KEPT);
          done();
        },
        (error: unknown) => done(error instanceof Error ? error : new Error(String(error))),
      );
    },
  });

  /** @returns the port on which it listens */
  async start(): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen(0, '127.0.0.1', resolve);
    });
    // Whoever hangs up in the middle must not stop the demo.
    this.server.on('error', (error: unknown) => log.error(error, 'The stand-in mailbox failed.'));
    return (this.server.server.address() as AddressInfo).port;
  }

  /** What an account has sent, newest first. */
  mailsOf(account: string): StandInMail[] {
    return this.kept.filter((k) => k.sender === account).map((k) => k.mail);
  }

  async close(): Promise<void> {
    await new Promise<void>((resolve) => this.server.close(resolve));
  }
}
