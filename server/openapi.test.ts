import { spawnSync } from 'node:child_process';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { Express } from 'express';
import { createApplication } from './application';
import type { ApplicationParts } from './application';
import { openApiDescription, openApiPath } from './openapi';

type Layer = { route?: { path: string; methods: Record<string, boolean> }; handle?: { stack?: Layer[] } };

/** Every route of an Express application, however deep its routers. */
function routesOf(layers: readonly Layer[]): string[] {
  return layers.flatMap((layer) => [
    ...(layer.route ? Object.keys(layer.route.methods).map((m) => `${m} ${layer.route!.path}`) : []),
    ...routesOf(layer.handle?.stack ?? []),
  ]);
}

describe('the OpenAPI description', () => {
  it('is a valid OpenAPI 3.1 document by an independent validator', () => {
    // The validator reads its schemas relative to its own module, which Jest cannot: it runs beside.
    const script = `
      import { Validator } from '@seriousme/openapi-schema-validator';
      import { readFileSync } from 'node:fs';
      console.log(JSON.stringify(await new Validator().validate(JSON.parse(readFileSync(0, 'utf8')))));`;
    const run = spawnSync(process.execPath, ['--input-type=module', '-e', script], {
      cwd: __dirname,
      input: JSON.stringify(openApiDescription()),
      encoding: 'utf8',
    });
    expect(JSON.parse(run.stdout)).toEqual({ valid: true });
  });

  it('names every route the server has, and none that it has not', () => {
    const parts = { database: {}, sounds: { uploadFolder: '/tmp' }, queue: {}, appFolder: null, isDemo: false };
    const application = createApplication(parts as unknown as ApplicationParts) as Express & {
      router: { stack: Layer[] };
    };
    const served = routesOf(application.router.stack)
      // Pages that links open are no part of the interface.
      .filter((r) => !/uploads|feeds|openapi\.json| \/s\//.test(r))
      .map((r) => openApiPath(r));
    const { paths } = openApiDescription() as { paths: Record<string, Record<string, { responses: object }>> };
    const described = Object.entries(paths).flatMap(([path, operations]) =>
      Object.keys(operations).map((m) => `${m} ${path}`),
    );
    expect(served.sort()).toEqual(described.filter((d) => !/uploads|feeds/.test(d)).sort());
    expect(served).toHaveLength(Object.keys(ENDPOINTS).length);
  });
});
