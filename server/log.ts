import { AsyncLocalStorage } from 'node:async_hooks';
import { randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import pino, { type DestinationStream, type Logger } from 'pino';

/** The header of an answer that says under which name its request stands in the log. */
export const REQUEST_HEADER = 'Immeld-Request';

const requests = new AsyncLocalStorage<string>();

/** Only what happened and where: the statement that failed would carry what somebody wrote. */
const errorFacts = ({ name, message, stack }: Error) => ({ type: name, message, stack });

/** A log that writes to `destination`; the id of the request that is being answered is in each line. */
export function makeLog(destination: DestinationStream): Logger {
  return pino(
    {
      base: null,
      timestamp: pino.stdTimeFunctions.isoTime,
      serializers: { err: (error: unknown) => (error instanceof Error ? errorFacts(error) : error) },
      mixin: () => {
        const request = requests.getStore();
        return request ? { request } : {};
      },
    },
    destination,
  );
}

/**
 * What the server has to say to whoever runs it: one line of JSON each, on standard error. Written at once, as what was
 * said last before a crash is what is looked for.
 */
export const log = makeLog(pino.destination({ dest: 2, sync: true }));

/** Names each request, in its answer and in all that is logged while it is answered. */
export const namedRequest: RequestHandler = (_request, response, next) => {
  const id = randomUUID();
  response.setHeader(REQUEST_HEADER, id);
  requests.run(id, next);
};
