import { randomBytes } from 'node:crypto';
import type { Response } from 'express';

const VISIT_MS = 12 * 3_600_000;
const WRONG_WITHIN_MS = 15 * 60_000;
/** A password is tried at most so often in a quarter of an hour, by all that try together. */
const MAX_WRONG = 20;

/** Who has been let in by which link, wrong passwords, and what is being sent now. Forgotten when the server stops. */
export class Visits {
  private readonly visits = new Map<string, { linkId: string; until: number }>();
  private readonly wrong = new Map<string, number[]>();
  private readonly sending = new Map<string, Set<Response>>();

  begin(linkId: string, now = Date.now()): string {
    for (const [id, { until }] of this.visits) if (until < now) this.visits.delete(id);
    const id = randomBytes(16).toString('base64url');
    this.visits.set(id, { linkId, until: now + VISIT_MS });
    return id;
  }

  isIn(visit: unknown, linkId: string, now = Date.now()): boolean {
    const known = typeof visit === 'string' ? this.visits.get(visit) : undefined;
    return known !== undefined && known.linkId === linkId && known.until >= now;
  }

  /** Whether the password of a link may be tried now. */
  mayTry(linkId: string, now = Date.now()): boolean {
    const recent = (this.wrong.get(linkId) ?? []).filter((at) => at > now - WRONG_WITHIN_MS);
    this.wrong.set(linkId, recent);
    return recent.length < MAX_WRONG;
  }

  wasWrong(linkId: string, now = Date.now()): void {
    this.wrong.set(linkId, [...(this.wrong.get(linkId) ?? []), now]);
  }

  /** Remembers a sound on its way, so that it can be stopped in the middle. */
  sends(linkId: string, response: Response): void {
    const all = this.sending.get(linkId) ?? new Set();
    this.sending.set(linkId, all.add(response));
    response.once('close', () => all.delete(response));
  }

  /** Nobody is let in by it any more, and what is on its way is cut off. */
  end(linkId: string): void {
    for (const [id, visit] of this.visits) if (visit.linkId === linkId) this.visits.delete(id);
    for (const response of this.sending.get(linkId) ?? []) response.destroy();
  }
}
