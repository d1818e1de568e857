import { randomInt, timingSafeEqual } from 'node:crypto';
import { hashOf } from './seal';

/** Without letters and digits that look like others. */
const SIGNS = '23456789BCDFGHJKMNPQRSTVWXZ';
const CODE_LENGTH = 8;
const LIFETIME_MS = 20 * 60_000;
const MAX_TRIES = 5;
/** One address gets so many codes in an hour. */
const MAX_CODES = 3;
const HOUR_MS = 60 * 60_000;

type Asked = { codeHash: string; endsAt: number; triesLeft: number };

const plain = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

/**
 * Codes that prove by email whose address it is: to sign up, or to set a new password. They are kept in memory alone. No
 * backup holds them, and a restart of the server ends them.
 */
export class MailedCodes {
  private readonly asked = new Map<string, Asked>();
  private readonly times = new Map<string, number[]>();

  /**
   * A new code for an address or an account, such as "K7Q2-9MXD". An older one ends.
   * @returns null when `key` has had three within an hour
   */
  begin(key: string, now = Date.now()): string | null {
    this.sweep(now);
    const times = this.times.get(key) ?? [];
    if (times.length >= MAX_CODES) return null;
    this.times.set(key, [...times, now]);
    const code = Array.from({ length: CODE_LENGTH }, () => SIGNS[randomInt(SIGNS.length)]).join('');
    this.asked.set(key, { codeHash: hashOf(code), endsAt: now + LIFETIME_MS, triesLeft: MAX_TRIES });
    return `${code.slice(0, 4)}-${code.slice(4)}`;
  }

  /** Whether this is the code of `key`. A right one is used up. After five wrong ones it ends. */
  take(key: string, code: string, now = Date.now()): boolean {
    this.sweep(now);
    const asked = this.asked.get(key);
    if (!asked) return false;
    const isRight = timingSafeEqual(Buffer.from(hashOf(plain(code))), Buffer.from(asked.codeHash));
    asked.triesLeft--;
    if (isRight || asked.triesLeft <= 0) this.asked.delete(key);
    return isRight;
  }

  private sweep(now: number): void {
    for (const [id, { endsAt }] of this.asked) if (endsAt <= now) this.asked.delete(id);
    for (const [id, times] of this.times) {
      const left = times.filter((t) => t > now - HOUR_MS);
      if (left.length) this.times.set(id, left);
      else this.times.delete(id);
    }
  }
}
