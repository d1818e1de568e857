import type { Endpoint } from '@immeld/core/contract/endpoint';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { beyondLimits } from '@immeld/core/contract/limits';
import { Problem, type ProblemCode } from '@immeld/core/contract/problem';
import { type Request, type Response, type Router, json } from 'express';
import { ValidationError, type Schema } from 'yup';
import { quickTasks } from '../tasks/taskPool';

type Handled<P, Q, B> = { params: P; query: Q; body: B; request: Request; response: Response };
type Name = keyof typeof ENDPOINTS;

const USUAL_SIZE = '100kb';
const LARGE_SIZE = '2mb';
/** Checking so many bytes field by field would keep others waiting. */
const CHECKED_ELSEWHERE_BYTES = 50_000;

const NAMES = new Map<unknown, Name>(Object.entries(ENDPOINTS).map(([name, e]) => [e, name as Name]));

/**
 * Puts an endpoint of the contract on a router: the size of what comes in is looked at before anything else, then it is
 * held against the contract; JSON goes out.
 */
export function serve<P, Q, B, R>(
  router: Router,
  endpoint: Endpoint<P, Q, B, R>,
  handle: (handled: Handled<P, Q, B>) => Promise<R | void>,
): void {
  const { method, path, params, query, body, isLarge } = endpoint;
  const reading = body ? [json({ limit: isLarge ? LARGE_SIZE : USUAL_SIZE })] : [];
  router[method](path, ...reading, async (request: Request, response: Response) => {
    const handled = {
      params: (await checked(params, request.params, 'not-found')) as P,
      query: (await checked(query, asTyped(request.query), 'invalid-request')) as Q,
      body: (body ? await checkedBody(endpoint, body, request) : undefined) as B,
      request,
      response,
    };
    const answer = await handle(handled);
    if (!response.headersSent && answer !== undefined) response.json(answer);
  });
}

/** What is typed into an address may hold anything; the character that ends texts elsewhere counts as a blank. */
const asTyped = (query: Request['query']): Request['query'] =>
  Object.fromEntries(
    Object.entries(query).map(([name, value]) => [
      name,
      typeof value === 'string' ? value.replaceAll('\u0000', ' ') : value,
    ]),
  );

async function checkedBody(endpoint: unknown, schema: Schema<unknown>, request: Request): Promise<unknown> {
  const value: unknown = request.body ?? {};
  const name = NAMES.get(endpoint);
  if (!name || Number(request.headers['content-length'] ?? Infinity) <= CHECKED_ELSEWHERE_BYTES) {
    return checked(schema, value, 'invalid-request');
  }
  refuseBeyondLimits(schema, value, 'invalid-request');
  const result = await quickTasks.run({ kind: 'check', endpoint: name, body: value });
  if ('refused' in result) throw new Problem('invalid-request', result.refused);
  return result.value;
}

function refuseBeyondLimits(schema: Schema<unknown>, value: unknown, code: ProblemCode): void {
  const problem = beyondLimits(schema, value);
  if (problem) throw new Problem(code, problem);
}

async function checked(schema: Schema<unknown>, value: unknown, code: ProblemCode): Promise<unknown> {
  refuseBeyondLimits(schema, value, code);
  try {
    // Blanks around words are taken off; a field that nobody knows is told, not dropped. The first fault is enough.
    return await schema.validate(value, { abortEarly: true, stripUnknown: false });
  } catch (error) {
    if (error instanceof ValidationError) throw new Problem(code, error.errors.join(' '));
    throw error;
  }
}
