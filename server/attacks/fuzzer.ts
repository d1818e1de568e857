import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { Endpoint } from '@immeld/core/contract/endpoint';

/** What breaks programs that trust what they are given. */
const NASTY: readonly unknown[] = [
  ...['', ' ', 'constructor', '__proto__', 'toString', 'hasOwnProperty', '%', '%00', '\u0000', 'a\u0000b', '../../etc'],
  ...[
    'a'.repeat(3000),
    'a,'.repeat(400),
    '"'.repeat(300),
    '🌳'.repeat(100),
    '\ud800',
    '\u202e',
    "'; DROP TABLE todos;--",
  ],
  ...[
    '*',
    '"',
    'NEAR(a b)',
    'a*',
    '-',
    '- -',
    'tag:',
    'in:"',
    'before:9999-99',
    '2026-13-45',
    '2026-02-30',
    '0000-00-00',
  ],
  ...['2026-05-12', '9999-12-31', '2026-05-12T25:61', 'FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=,', 'null', 'undefined', 'NaN'],
  ...[0, -1, 1, 1.5, 1e308, -1e308, 2 ** 53, 2 ** 31, 99_999_999_999_999],
  ...[true, false, null, [], {}, [[]], [null], [{}], { toString: 1 }, { valueOf: 1 }, { length: -1 }, { type: 'doc' }],
  JSON.parse('{"__proto__":{"isAdmin":true}}'),
  JSON.parse('{"constructor":{"prototype":1}}'),
];

type Described = {
  type: string;
  oneOf?: unknown[];
  fields?: Record<string, Described>;
  innerType?: Described;
};

export type FuzzedRequest = {
  name: string;
  method: string;
  path: string;
  headers: Record<string, string>;
  body?: string;
};

/** Requests over the whole contract, each nearly right and wrong in some way. */
export class Fuzzer {
  private readonly endpoints = Object.entries(ENDPOINTS) as unknown as [
    string,
    Endpoint<unknown, unknown, unknown, unknown>,
  ][];

  /** @param ids of things that are there */
  constructor(
    private readonly random: () => number,
    private readonly ids: readonly string[],
  ) {}

  next(): FuzzedRequest {
    const [name, { method, path, params, query, body }] = this.one(this.endpoints);
    const values = this.fieldsOf(params.describe() as unknown as Described, 0.2);
    const filled = path.replace(/:(\w+)/g, (_, key: string) => this.inAddress(values[key] ?? this.one(NASTY)));
    const asked = this.fieldsOf(query.describe() as unknown as Described, 0.3);
    const search = Object.entries(asked)
      .map(([key, value]) => `${key}=${this.inAddress(value)}`)
      .join('&');
    const headers: Record<string, string> = {};
    let content: string | undefined;
    if (body || this.random() < 0.1) {
      const isWild = this.random() < 0.05;
      const value = body && !isWild ? this.value(body.describe() as unknown as Described, 0.25) : this.one(NASTY);
      content = JSON.stringify(value) ?? 'undefined';
      headers['Content-Type'] = 'application/json';
      const way = this.random();
      if (way < 0.02) headers['Content-Type'] = 'application/json; charset=utf-7';
      else if (way < 0.04) headers['Content-Type'] = 'text/plain';
      else if (way < 0.06) headers['Content-Encoding'] = this.one(['gzip', 'br', 'zstd', 'x']);
      else if (way < 0.08) content = content.slice(0, content.length / 2);
    }
    return {
      ...{ name, method: method.toUpperCase(), path: `/api${filled}${search ? `?${search}` : ''}`, headers },
      ...(content !== undefined && method !== 'get' ? { body: content } : {}),
    };
  }

  private fieldsOf({ fields = {} }: Described, wrong: number): Record<string, unknown> {
    return Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, this.value(field, wrong)]));
  }

  private one<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)]!;
  }

  private inAddress(value: unknown): string {
    const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
    if (this.random() < 0.03) return '%E0%A4%A';
    try {
      return encodeURIComponent(text) || '%20';
    } catch {
      // Half a character has no place in an address.
      return '%ED%A0%80';
    }
  }

  /** A value by a schema, of which a share is wrong. */
  private value(described: Described, wrong: number, depth = 0): unknown {
    if (this.random() < wrong * 0.5) return this.one(NASTY);
    if (described.oneOf?.length) return this.one(described.oneOf);
    switch (described.type) {
      case 'string':
        return this.random() < 0.5
          ? this.one(this.ids)
          : this.one(['lime', 'Bram', 'me', '2026-03-09', '14:05', 'tray']);
      case 'number':
        return this.one([0, 1, 2, 3, 5, 10, 1000]);
      case 'boolean':
        return this.random() < 0.5;
      case 'array':
        return Array.from({ length: Math.floor(this.random() * 4) }, () =>
          this.value(described.innerType ?? { type: 'mixed' }, wrong, depth + 1),
        );
      case 'object': {
        const fields = Object.entries(described.fields ?? {}).filter(() => this.random() < 0.8);
        const value = Object.fromEntries(fields.map(([n, field]) => [n, this.value(field, wrong, depth + 1)]));
        if (this.random() < 0.05) value[String(this.one(['constructor', 'colour', 'toString']))] = this.one(NASTY);
        return value;
      }
      default:
        return { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'lime' }] }] };
    }
  }
}
