import { convertSchema } from '@sodaru/yup-to-json-schema';
import type { Endpoint } from '@immeld/core/contract/endpoint';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { PROBLEMS } from '@immeld/core/contract/problem';

type AnyEndpoint = Endpoint<unknown, unknown, unknown, unknown>;
type JsonSchema = { properties?: Record<string, object>; required?: string[] };

const schemaOf = (schema: unknown): JsonSchema => {
  const json = convertSchema(schema as Parameters<typeof convertSchema>[0]) as JsonSchema & { $schema?: string };
  delete json.$schema;
  return json;
};

function parametersOf(schema: unknown, place: 'path' | 'query'): object[] {
  const { properties = {}, required = [] } = schemaOf(schema);
  return Object.entries(properties).map(([name, property]) => ({
    ...{ name, in: place, schema: property },
    required: place === 'path' || required.includes(name),
  }));
}

/** Path templates of OpenAPI write `{id}` where Express writes `:id`. */
export const openApiPath = (path: string): string => path.replace(/:(\w+)/g, '{$1}');

function operation(id: string, e: AnyEndpoint): object {
  return {
    operationId: id,
    summary: e.summary,
    parameters: [...parametersOf(e.params, 'path'), ...parametersOf(e.query, 'query')],
    ...(e.body
      ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(e.body) } } } }
      : {}),
    responses: {
      200: {
        description: 'Done',
        content: e.response
          ? { 'application/json': { schema: schemaOf(e.response) } }
          : { [e.answers ?? '*/*']: { schema: { type: 'string' } } },
      },
      default: {
        description: 'What went wrong and what is safe, as problem details (RFC 9457)',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

/** The OpenAPI 3.1 description, made from the same table that the routes are made from. */
export function openApiDescription(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [id, endpoint] of Object.entries(ENDPOINTS)) {
    const path = openApiPath(endpoint.path);
    paths[path] = { ...paths[path], [endpoint.method]: operation(id, endpoint as unknown as AnyEndpoint) };
  }
  paths['/uploads'] = {
    post: {
      operationId: 'createUpload',
      summary:
        'Start a resumable upload with the tus protocol 1.0. Metadata: filename, filetype, startedAt, durationMs, source',
      responses: {
        201: { description: 'The Location header holds the address of the upload. Continue there with HEAD and PATCH' },
      },
    },
  };
  paths['/feeds/{token}.ics'] = {
    servers: [{ url: '/' }],
    get: {
      operationId: 'readTodoFeed',
      summary: 'To-dos as iCalendar tasks at their private address; no cookie needed',
      responses: {
        200: { description: 'Tasks', content: { 'text/calendar': {} } },
        404: { description: 'Address turned off' },
      },
    },
  };
  return {
    openapi: '3.1.0',
    info: {
      title: 'Immeld',
      version: '0.1.0',
      description: 'Recordings, text, notes and to-dos on your own machine.',
    },
    servers: [{ url: '/api' }],
    paths,
    components: {
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail', 'code', 'safe'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            instance: { type: 'string' },
            code: { type: 'string', enum: Object.keys(PROBLEMS) },
            safe: { type: 'string' },
          },
        },
      },
    },
  };
}
