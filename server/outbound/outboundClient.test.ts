import http from 'node:http';
import zlib from 'node:zlib';
import { AddressBlocked, OutboundClient, isPublic, readTextWithin } from './outboundClient';

/** Blocks of the IANA IPv4 and IPv6 special-purpose address registries (RFC 6890), each with an address inside. */
const SPECIAL = [
  ...['0.0.0.0', '10.1.2.3', '100.64.0.1', '127.0.0.1', '127.1.2.3', '169.254.169.254', '172.16.0.1', '192.0.0.8'],
  ...['192.168.1.1', '198.18.0.1', '224.0.0.1', '240.0.0.1', '255.255.255.255'],
  ...[
    '::',
    '::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '64:ff9b::7f00:1',
    'fc00::1',
    'fd12::1',
    'fe80::1',
    'ff02::1',
  ],
];

it.each(SPECIAL)('%s is not reached', (address) => expect(isPublic(address)).toBe(false));
it.each(['93.184.216.34', '8.8.8.8', '2606:2800:220:1::1'])('%s is reached', (address) =>
  expect(isPublic(address)).toBe(true),
);

describe('from a server that may not look into its own network', () => {
  let inside: http.Server;
  let port: number;
  let asked: string[];
  beforeEach(async () => {
    asked = [];
    inside = http.createServer((request, response) => {
      asked.push(request.url!);
      if (request.url === '/bomb') {
        response.setHeader('Content-Encoding', 'gzip');
        return void response.end(zlib.gzipSync(Buffer.alloc(50_000_000)));
      }
      if (request.url === '/away') return void response.writeHead(302, { Location: 'http://169.254.169.254/' }).end();
      if (request.url === '/round') return void response.writeHead(302, { Location: '/round' }).end();
      response.end('secret');
    });
    await new Promise<void>((resolve) => inside.listen(0, '127.0.0.1', resolve));
    port = (inside.address() as { port: number }).port;
  });
  afterEach(() => new Promise((resolve) => inside.close(resolve)));

  it.each([
    ...[
      '127.0.0.1',
      'localhost',
      '[::1]',
      '[::ffff:127.0.0.1]',
      '127.1',
      '2130706433',
      '0x7f.1',
      '0177.0.0.1',
      '0.0.0.0',
    ],
  ])('http://%s is refused in every spelling', async (host) => {
    const outside = new OutboundClient(false);
    await expect(outside.fetch(`http://${host}:${port}/`)).rejects.toThrow(AddressBlocked);
    expect(asked).toEqual([]);
    await outside.close();
  });

  it('other protocols than those of the web are refused', async () => {
    const outside = new OutboundClient(true);
    await expect(outside.fetch('file:///etc/hostname')).rejects.toThrow(AddressBlocked);
    await outside.close();
  });

  it('redirects are followed three times, each looked at', async () => {
    const outside = new OutboundClient(true);
    await expect(outside.fetch(`http://127.0.0.1:${port}/round`)).rejects.toThrow('Too many redirects');
    expect(asked).toHaveLength(4);
    await outside.close();
  });

  it('bytes are counted as they are unpacked', async () => {
    const outside = new OutboundClient(true);
    expect(await readTextWithin(await outside.fetch(`http://127.0.0.1:${port}/bomb`), 5_000_000)).toBeNull();
    expect(await readTextWithin(await outside.fetch(`http://127.0.0.1:${port}/`), 5_000_000)).toBe('secret');
    await outside.close();
  });
});
