import net from 'node:net';
import os from 'node:os';
import { Problem } from '@immeld/core/contract/problem';
import type { RequestHandler } from 'express';

/** The name of a host without its port, in small letters. */
function nameOf(host: string): string {
  const name = host.toLowerCase();
  if (name.startsWith('[')) return name.slice(1, name.indexOf(']'));
  const colon = name.lastIndexOf(':');
  return colon < 0 ? name : name.slice(0, colon);
}

/**
 * Whether the server answers under a name. A page from elsewhere can let its own name lead to this machine (DNS rebinding), but
 * not one that is a number, and not one that belongs to this machine.
 */
export function isOwnHost(host: string | undefined, hosts: readonly string[], machine = os.hostname()): boolean {
  if (!host) return false;
  const name = nameOf(host);
  const own = machine.toLowerCase();
  return (
    net.isIP(name) !== 0 ||
    name === 'localhost' ||
    name.endsWith('.localhost') ||
    name === own ||
    name === `${own}.local` ||
    hosts.includes(name)
  );
}

/** Refuses requests under other names than the server's own. */
export const ownHostsOnly =
  (hosts: readonly string[]): RequestHandler =>
  (request, _response, next) => {
    if (!isOwnHost(request.headers.host, hosts)) {
      throw new Problem(
        'not-allowed',
        'Immeld does not accept requests for this host name. The operator can allow it with IMMELD_HOSTS.',
      );
    }
    next();
  };
