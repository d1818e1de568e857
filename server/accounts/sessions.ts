import { Problem } from '@immeld/core/contract/problem';
import { hash, verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import type { CookieOptions, Request, RequestHandler, Response } from 'express';
import { AccountRow, SessionRow } from '../models/account';
import { asAccount } from './currentAccount';
import { FIRST_ACCOUNT } from './firstAccount';
import { hashOf } from './seal';

const COOKIE = 'immeld_session';
export const SESSION_LIFETIME_MS = 400 * 86_400_000;
/** So often the time of the last visit is written down. */
const SEEN_EVERY_MS = 5 * 60_000;
const TOKEN_BYTES = 32;

const cookieOptions = (request: Request): CookieOptions => ({
  httpOnly: true,
  sameSite: 'lax',
  secure: request.secure,
  path: '/',
  maxAge: SESSION_LIFETIME_MS,
});

/** A name for a device that its owner recognises in a list. */
function deviceOf(request: Request): string {
  const agent = request.headers['user-agent'] ?? '';
  const browser = /(Firefox|Edg|Chrome|Chromium|Safari)\//.exec(agent)?.[1] ?? 'Another browser';
  const system = /(Android|iPhone|iPad|Windows|Macintosh|Linux)/.exec(agent)?.[1] ?? 'unknown system';
  return `${browser === 'Edg' ? 'Edge' : browser}, ${system}`;
}

export async function findSession(request: Request): Promise<SessionRow | null> {
  const token = (request.cookies as Record<string, string> | undefined)?.[COOKIE];
  if (!token) return null;
  const session = await SessionRow.findOne({ where: { tokenHash: hashOf(token) } });
  if (!session) return null;
  const unseenMs = Date.now() - session.lastSeenAt.getTime();
  if (unseenMs > SESSION_LIFETIME_MS) {
    // The cookie has ended; a copy of it has too.
    await session.destroy();
    return null;
  }
  if (unseenMs > SEEN_EVERY_MS) await session.update({ lastSeenAt: new Date() });
  return session;
}

/**
 * Signs this device in: a new token in a cookie that scripts cannot read. The token that it came with is worth nothing from
 * then on.
 */
export async function beginSession(request: Request, response: Response, owner: string): Promise<void> {
  await (await findSession(request))?.destroy();
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  await SessionRow.create({ owner, tokenHash: hashOf(token), device: deviceOf(request), lastSeenAt: new Date() });
  response.cookie(COOKIE, token, cookieOptions(request));
}

export function forgetCookie(request: Request, response: Response): void {
  response.clearCookie(COOKIE, { ...cookieOptions(request), maxAge: undefined });
}

/** A guest of one's own; the very first guest gets what was recorded before there were accounts. */
export async function newGuest(): Promise<string> {
  const [isFree] = await AccountRow.update(
    { claimedAt: new Date() },
    { where: { id: FIRST_ACCOUNT, email: null, claimedAt: null } },
  );
  if (isFree) return FIRST_ACCOUNT;
  return (await AccountRow.create({ email: null, passwordHash: null, claimedAt: new Date() })).id;
}

/** argon2id with the package's defaults, which are those that OWASP recommends (19 MiB, 2 passes; from memory). */
export const hashPassword = (password: string): Promise<string> => hash(password);

/** The account to which e-mail and password belong. Takes as long for an address that is unknown. */
export async function accountByPassword(email: string, password: string): Promise<AccountRow> {
  const account = await AccountRow.findOne({ where: { email } });
  const isRight = await verify(account?.passwordHash ?? (await decoyHash), password);
  if (!account?.passwordHash || !isRight) {
    throw new Problem('not-allowed', 'Wrong email or password.');
  }
  return account;
}

const decoyHash = hash(randomBytes(16).toString('hex'));

/** Answered without an account: what is the same for everybody, and the doors. */
const OPEN = new Set([
  ...['GET /status', 'GET /openapi.json', 'GET /packs'],
  ...[
    'POST /account/sign-up-code',
    'POST /session/guest',
    'POST /session',
    'POST /session/forgotten',
    'POST /session/new-password',
  ],
]);

/** Finds out whose request it is. Without an account there is nothing to see but the doors. */
export const requireAccount =
  (isDemo: boolean): RequestHandler =>
  async (request, response, next) => {
    const session = await findSession(request);
    const owner = session?.owner ?? (isDemo ? FIRST_ACCOUNT : null);
    response.locals['sessionId'] = session?.id ?? null;
    if (owner) return asAccount(owner, () => next());
    const isOpen =
      OPEN.has(`${request.method} ${request.path}`) || (request.method === 'POST' && request.path === '/account');
    if (!isOpen)
      throw new Problem(
        'signed-out',
        'This device is not signed in. Reload the page to continue as a guest, or sign in.',
      );
    next();
  };
