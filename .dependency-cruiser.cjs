/** Imports run one way: client -> contract -> core, server -> contract -> core; core imports nothing of ours. */
const layer = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: to },
})
const ours = '^(contract|server|client|demo|e2e|bench|scripts)/'

/**
 * The client's folders, each of which may import those before it. From `accounts` on they are
 * capabilities: another folder reaches one through its `index.ts` only.
 */
const CLIENT = [
  ...['words', 'workers', 'device', 'kit', 'api', 'broken', 'media', 'sheets'],
  ...['accounts', 'outbox', 'parts', 'tidy', 'school', 'folders', 'portfolio', 'tasks', 'notices'],
  ...[
    'pieces',
    'comments',
    'places',
    'making',
    'ink',
    'classPieces',
    'desk',
    'door',
    'account',
    'book',
    'sharing',
  ],
  ...['lists', 'staff', 'classes', 'year', 'review', 'pupils', 'screens', 'app'],
]
/** Carry every capability, and are reached by file. */
const OPEN = [
  'words',
  'workers',
  'device',
  'kit',
  'api',
  'broken',
  'media',
  'sheets',
  'outbox',
  'parts',
  'screens',
  'app',
]
const NO_TEST = { pathNot: '(\\.test\\.tsx?$|/testing/)' }
const clientOrder = [
  ...CLIENT.map((folder, i) => ({
    name: `client-${folder}-imports-what-comes-before-it`,
    severity: 'error',
    from: { path: `^client/src/${folder}/`, ...NO_TEST },
    to: { path: `^client/src/(?!(?:${CLIENT.slice(0, i + 1).join('|')})/)[^/]+/` },
  })),
  ...CLIENT.filter((folder) => !OPEN.includes(folder)).map((folder) => ({
    name: `client-${folder}-only-through-its-index`,
    severity: 'error',
    // What names all screens of a role, and the composition root, put together what they need.
    from: {
      path: '^client/src/',
      pathNot: `^client/src/(${folder}/|screens/|app/|startOutbox\\.ts)|${NO_TEST.pathNot}`,
    },
    to: { path: `^client/src/${folder}/(?!index\\.ts$)` },
  })),
  {
    name: 'client-folders-have-a-place',
    severity: 'error',
    from: { path: `^client/src/(?!(?:${CLIENT.join('|')}|testing)/)[^/]+/` },
    to: {},
  },
]
/** The server's folders, each of which may import those before it. */
const SERVER = [
  ...['platform', 'print', 'access', 'media', 'school', 'notices', 'mail', 'accounts', 'folders'],
  ...[
    'tasks',
    'pieces',
    'review',
    'comments',
    'portfolio',
    'sharing',
    'book',
    'staff',
    'retention',
  ],
]
const serverOrder = [
  ...SERVER.map((folder, i) => ({
    name: `server-${folder}-imports-what-comes-before-it`,
    severity: 'error',
    from: { path: `^server/src/${folder}/`, ...NO_TEST },
    to: { path: `^server/src/(?!(?:${SERVER.slice(0, i + 1).join('|')})/)[^/]+/` },
  })),
  {
    name: 'server-folders-have-a-place',
    severity: 'error',
    from: { path: `^server/src/(?!(?:${SERVER.join('|')}|testing|migrations)/)[^/]+/` },
    to: {},
  },
]
module.exports = {
  forbidden: [
    ...clientOrder,
    ...serverOrder,
    layer('core-imports-nothing-of-ours', '^core/', ours),
    layer('contract-imports-only-core', '^contract/', '^(server|client|demo|e2e|bench|scripts)/'),
    layer(
      'server-imports-contract-and-core',
      '^server/(?!src/testing/)',
      '^(client|demo|e2e|bench|scripts)/',
    ),
    layer('client-imports-contract-and-core', '^client/', '^(server|demo|e2e|bench|scripts)/'),
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
