/** Arrows point one way: everything may use core, core uses nothing of anybody. */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(app|server|cli|demo|standins)/' },
    },
    {
      name: 'core-without-platform',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(react|react-dom|react-native|expo|sequelize|sqlite3|express|onnxruntime-.*)' },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-imports-only-types-of-core',
      severity: 'error',
      from: { path: '^core/contract/' },
      to: {
        path: '^core/(audio|speech|transcript|language|understanding|writeup|filing|find)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    { name: 'app-not-server', severity: 'error', from: { path: '^app/' }, to: { path: '^(server|cli|demo)/' } },
    { name: 'server-not-app', severity: 'error', from: { path: '^server/' }, to: { path: '^(app|cli|demo|e2e)/' } },
    { name: 'cli-not-app', severity: 'error', from: { path: '^cli/' }, to: { path: '^(app|demo)/' } },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, dependencyTypesNot: ['type-only'] } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(node_modules|dist|\\.expo)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.cjs', '.json'],
    },
  },
};
