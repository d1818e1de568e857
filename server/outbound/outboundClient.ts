import net from 'node:net';
import type { LookupAddress } from 'node:dns';
import dns from 'node:dns';
import ipaddr from 'ipaddr.js';
import { Agent, type RequestInit, type Response, buildConnector, fetch } from 'undici';

/** An address that leads where nobody may be sent from here. */
export class AddressBlocked extends Error {
  constructor() {
    super(
      'This address points to this computer or its local network. The operator can allow it with IMMELD_ALLOW_LOCAL.',
    );
    this.name = 'AddressBlocked';
  }
}

const MAX_REDIRECTS = 3;

/** Whether an address is one of the whole internet: neither of this machine, nor of a network that only it reaches. */
export function isPublic(address: string): boolean {
  if (!ipaddr.isValid(address)) return false;
  return ipaddr.process(address).range() === 'unicast';
}

/** The network outside. Where strangers say what is to be fetched, addresses are looked at when the connection is made. */
export class OutboundClient {
  private readonly agent: Agent;

  /** @param allowsLocal whether loopback and private addresses may be reached; the operator says so */
  constructor(readonly allowsLocal: boolean) {
    const connect = buildConnector({ timeout: 10_000, ...(allowsLocal ? {} : { lookup: publicOnly }) });
    this.agent = new Agent({
      // An address that is written as a number is never looked up, so it is looked at here.
      connect: (options, done) =>
        !allowsLocal && net.isIP(bare(options.hostname)) && !isPublic(bare(options.hostname))
          ? done(new AddressBlocked(), null)
          : connect(options, done),
    });
  }

  /**
   * Fetches like `fetch`; each address on the way is looked at, and redirects are counted.
   * @throws AddressBlocked where one of them is not public
   */
  async fetch(address: string, init: RequestInit = {}): Promise<Response> {
    let url = new URL(address);
    for (let redirects = 0; ; redirects++) {
      if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new AddressBlocked();
      const response = await fetch(url, { ...init, redirect: 'manual', dispatcher: this.agent }).catch(
        (error: unknown) => {
          throw reasonIn(error) ?? error;
        },
      );
      const next = response.status >= 300 && response.status < 400 ? response.headers.get('location') : null;
      if (next === null) return response;
      await response.body?.cancel();
      // What is sent to one server is not for another.
      if (redirects >= MAX_REDIRECTS || init.body) throw new Error('Too many redirects.');
      url = new URL(next, url);
    }
  }

  async close(): Promise<void> {
    await this.agent.destroy();
  }
}

/** The text of an answer, unpacked bytes counted while they come. Null where it is longer. */
export async function readTextWithin(response: Response, mostBytes: number): Promise<string | null> {
  const parts: Uint8Array[] = [];
  let length = 0;
  for await (const bytes of response.body ?? []) {
    length += (bytes as Uint8Array).length;
    if (length > mostBytes) return null;
    parts.push(bytes as Uint8Array);
  }
  return Buffer.concat(parts).toString('utf8');
}

const bare = (hostname: string): string => hostname.replace(/^\[|\]$/g, '');

/** A look-up that gives public addresses only; what it gives is what the connection is made to. */
function publicOnly(
  hostname: string,
  options: dns.LookupOptions,
  done: (error: NodeJS.ErrnoException | null, address: string | LookupAddress[], family?: number) => void,
): void {
  dns.lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) return done(error, []);
    const allowed = addresses.filter(({ address }) => isPublic(address));
    const [first] = allowed;
    if (!first) return done(new AddressBlocked(), []);
    if (options.all) done(null, allowed);
    else done(null, first.address, first.family);
  });
}

/** The refusal that lies in an error of the client, as deep as it lies. */
function reasonIn(error: unknown): AddressBlocked | null {
  for (let cause = error, i = 0; cause && i < 5; cause = (cause as Error).cause, i++) {
    if (cause instanceof AddressBlocked) return cause;
  }
  return null;
}
