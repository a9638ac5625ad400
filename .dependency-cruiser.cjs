// The house has floors (docs/architecture.md): a folder imports only from floors below it.
const CORE = [
  'units',
  'plane',
  'paper',
  'pattern',
  'linkage',
  'shapes',
  'kinds',
  'assembly',
  'rules',
  'document',
  'build',
  'proof',
  'decide',
  'sheets',
  'cutting',
  'formats',
  'simulate',
];

/** Each floor of the core may not look up. `tolerance.ts` lies below all. */
const floors = CORE.slice(0, -1).map((name, i) => ({
  name: `core-${name}-looks-up`,
  severity: 'error',
  from: { path: `^src/core/${name}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^src/core/(${CORE.slice(i + 1).join('|')})/` },
}));

module.exports = {
  forbidden: [
    ...floors,
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$|^src/core/tests/' },
      to: {
        path: '^src/(cli|workers|store|ui|app)/|^node_modules/(react|react-dom|next|three|@react-three|@chakra-ui|zustand|idb|chart\\.js)/',
      },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$|^src/core/tests/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'cli-over-core-only',
      severity: 'error',
      from: { path: '^src/cli/' },
      to: { path: '^src/(workers|store|ui|app)/' },
    },
    {
      name: 'workers-over-core-only',
      severity: 'error',
      from: { path: '^src/workers/' },
      to: { path: '^src/(cli|store|ui|app)/' },
    },
    {
      name: 'server-over-core-only',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(cli|workers|store|ui|app)/' },
    },
    { name: 'store-below-ui', severity: 'error', from: { path: '^src/store/' }, to: { path: '^src/(cli|ui|app)/' } },
    { name: 'ui-below-app', severity: 'error', from: { path: '^src/ui/' }, to: { path: '^src/(cli|app)/' } },
    {
      name: 'testing-in-tests-only',
      severity: 'error',
      from: { path: '^src/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/core/tests/' },
    },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true, path: '^[./@]' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
