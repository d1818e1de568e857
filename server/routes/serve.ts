import type { Endpoint } from '@immeld/core/contract/endpoint';
import { Problem } from '@immeld/core/contract/problem';
import { type Request, type Response, type Router } from 'express';
import { ValidationError } from 'yup';

type Handled<P, Q, B> = { params: P; query: Q; body: B; request: Request; response: Response };

/** Puts an endpoint of the contract on a router: validated on the way in, JSON on the way out. */
export function serve<P, Q, B, R>(
  router: Router,
  endpoint: Endpoint<P, Q, B, R>,
  handle: (handled: Handled<P, Q, B>) => Promise<R | void>,
): void {
  router[endpoint.method](endpoint.path, async (request, response) => {
    const handled = {
      params: (await checked(endpoint.params, request.params, 'not-found')) as P,
      query: (await checked(endpoint.query, request.query, 'invalid-request')) as Q,
      body: (endpoint.body ? await checked(endpoint.body, request.body ?? {}, 'invalid-request') : undefined) as B,
      request,
      response,
    };
    const answer = await handle(handled);
    if (!response.headersSent && answer !== undefined) response.json(answer);
  });
}

async function checked(
  schema: { validate(value: unknown, options: object): Promise<unknown> },
  value: unknown,
  code: 'not-found' | 'invalid-request',
): Promise<unknown> {
  try {
    // Blanks around words are taken off; a field that nobody knows is told, not dropped.
    return await schema.validate(value, { abortEarly: false, stripUnknown: false });
  } catch (error) {
    if (error instanceof ValidationError) throw new Problem(code, [...new Set(error.errors)].join(' '));
    throw error;
  }
}
