/** Imports run one way: client -> contract -> core, server -> contract -> core; core imports nothing of ours. */
const layer = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: to },
})
const ours = '^(contract|server|client|demo|e2e|bench|scripts)/'
module.exports = {
  forbidden: [
    layer('core-imports-nothing-of-ours', '^core/', ours),
    layer('contract-imports-only-core', '^contract/', '^(server|client|demo|e2e|bench|scripts)/'),
    layer(
      'server-imports-contract-and-core',
      '^server/(?!src/testing/)',
      '^(client|demo|e2e|bench|scripts)/',
    ),
    layer('client-imports-contract-and-core', '^client/', '^(server|demo|e2e|bench|scripts)/'),
    {
      name: 'platform-imports-no-capability',
      severity: 'error',
      from: { path: '^server/src/platform/', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/(?!platform/)' },
    },
    {
      name: 'media-imports-no-capability',
      severity: 'error',
      from: { path: '^server/src/media/', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/(?!media/|platform/|access/)' },
    },
    {
      name: 'core-does-no-input-or-output',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'routes-are-one-line',
      severity: 'error',
      from: { path: '^client/src/app/', pathNot: '_layout\\.tsx$' },
      to: { path: '^client/src/(kit|api|device)/', pathNot: 'NotFoundScreen' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: { pathNot: '^client/' },
      to: { couldNotResolve: true, pathNot: '^expo|^react' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(node_modules|dist|\\.expo|\\.cache|\\.data)(/|$)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
}
