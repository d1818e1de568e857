import type { Account } from '@immeld/core/contract/account';
import type { RecordingCard } from '@immeld/core/contract/recordings';

/** A browser that keeps its cookie. */
export class Device {
  cookie = '';

  /** @param address of the server, which may be another one after a start */
  constructor(private readonly address: () => string) {}

  static async guest(address: () => string): Promise<Device> {
    const device = new Device(address);
    await device.guest();
    return device;
  }

  async ask<T = Record<string, never>>(method: string, address: string, body?: unknown, headers = {}) {
    const isRaw = body instanceof Uint8Array;
    const response = await fetch(`${this.address()}/api${address}`, {
      method,
      headers: {
        'User-Agent': 'Mozilla/5.0 (Linux) Firefox/140',
        ...(this.cookie ? { Cookie: this.cookie } : {}),
        ...(body === undefined || isRaw ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: isRaw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body) }),
    });
    const set = response.headers.get('Set-Cookie');
    if (set) this.cookie = set.split(';')[0]!;
    const text = await response.text();
    const isJson = (response.headers.get('Content-Type') ?? '').includes('json');
    return { status: response.status, headers: response.headers, body: (isJson ? JSON.parse(text) : text) as T };
  }

  async guest(): Promise<Account> {
    return (await this.ask<Account>('POST', '/session/guest')).body;
  }

  /** Brings a sound in. @returns the recording's id */
  async bringIn(content: string): Promise<string> {
    return (await this.send(Buffer.from(content), { filename: 'memo.wav' })).get('Immeld-Recording')!;
  }

  /** Sends bytes by the tus protocol in one piece. @returns the headers of the last answer */
  async send(content: Buffer, details: Record<string, string>): Promise<Headers> {
    const metadata = Object.entries(details)
      .map(([name, value]) => `${name} ${Buffer.from(value).toString('base64')}`)
      .join(',');
    const tus = { 'Tus-Resumable': '1.0.0' };
    const made = await this.ask('POST', '/uploads', undefined, {
      ...{ ...tus, 'Upload-Length': String(content.length), 'Upload-Metadata': metadata },
    });
    const address = new URL(made.headers.get('Location')!, this.address()).pathname.replace(/^\/api/, '');
    const sent = await this.ask('PATCH', address, new Uint8Array(content), {
      ...{ ...tus, 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
    });
    return sent.headers;
  }

  async recordings(): Promise<string[]> {
    return (await this.ask<{ items: RecordingCard[] }>('GET', '/recordings')).body.items.map((r) => r.id);
  }
}
