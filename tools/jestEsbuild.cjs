/** Turns TypeScript and ES modules into what Jest runs, for the parts that run in Node: esbuild is far quicker than Babel. */
const crypto = require('node:crypto');
const path = require('node:path');
const esbuild = require('esbuild');

const OPTIONS = { format: 'cjs', target: 'node20', sourcemap: 'inline', supported: { 'dynamic-import': false } };
const LOADERS = { '.ts': 'ts', '.tsx': 'tsx', '.jsx': 'jsx' };
const cacheStart = JSON.stringify([esbuild.version, OPTIONS]);

module.exports = {
  process: (source, file) => ({
    code: esbuild.transformSync(source, {
      ...OPTIONS,
      loader: LOADERS[path.extname(file)] ?? 'js',
      sourcefile: file,
    }).code,
  }),
  getCacheKey: (source, file) =>
    crypto.createHash('sha256').update(cacheStart).update(file).update(source).digest('hex'),
};
