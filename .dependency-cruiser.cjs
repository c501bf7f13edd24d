/** The arrows that the house allows; docs/architecture.md says why. */
const layer = (name, mayUse) => ({
  name: `${name}-uses-only-${mayUse.join('-and-') || 'itself'}`,
  severity: 'error',
  from: { path: `^${name}/src` },
  to: {
    path: '^(core|contract|server|web|demo|standins)/src',
    pathNot: [name, ...mayUse].map((each) => `^${each}/src`),
  },
});

module.exports = {
  forbidden: [
    layer('core', []),
    layer('contract', ['core']),
    layer('server', ['core', 'contract']),
    layer('web', ['core', 'contract']),
    layer('standins', []),
    layer('demo', ['core', 'server', 'standins']),
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-stands-alone',
      comment: 'Core computes; it knows no package, network, file or clock.',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] },
    },
    {
      name: 'domains-meet-at-their-index',
      comment:
        'Between domains of the server only through the index of the other one; rooms of the platform may have an index of their own.',
      severity: 'error',
      from: { path: '^server/src/([^/]+)/' },
      to: {
        path: '^server/src/([^/]+)/',
        pathNot: ['^server/src/$1/', '^server/src/([^/]+|platform/[^/]+)/index\\.ts$'],
      },
    },
    {
      name: 'core-domains-meet-at-their-index',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/([^/]+)/', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: ['\\.d\\.ts$', 'vite-env', 'start-demo', 'start-platforms', 'write-files'] },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      conditionNames: ['source', 'import', 'types', 'default'],
      exportsFields: ['exports'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
