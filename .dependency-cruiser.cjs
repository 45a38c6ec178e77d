/** The import law: contract <- core <- render, tag, server, studio. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^${from}/`, pathNot: '\\.test\\.tsx?$|/test/' },
  to: { path: '^(packages|apps|e2e|bench|scripts)/', pathNot: `^(${[from, ...allowed].join('|')})[/.]` },
});

module.exports = {
  forbidden: [
    only('contract-imports-nothing-of-ours', 'packages/contract', []),
    only('core-imports-contract', 'packages/core', ['packages/contract']),
    only('render-imports-core', 'packages/render', ['packages/contract', 'packages/core']),
    only('tag-imports-render-and-core', 'packages/tag', [
      'packages/contract',
      'packages/core',
      'packages/render',
    ]),
    // The sheet of a message is made when it is published (decision 0008); nothing else of render.
    only('server-imports-core', 'apps/server', [
      'packages/contract',
      'packages/core',
      'packages/render/src/sheet',
    ]),
    only('studio-imports-render-and-core', 'apps/studio', [
      'packages/contract',
      'packages/core',
      'packages/render',
    ]),
    only('sites-stand-alone', 'apps/sites', []),
    only('standins-stand-alone', 'apps/standins', []),
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { dependencyTypes: ['core', 'npm'] },
    },
    {
      name: 'domains-meet-at-their-index',
      comment:
        'A domain of the server reaches another through its index; the row types of entities may be named.',
      severity: 'error',
      from: { path: '^apps/server/src/([^/]+)/', pathNot: '^apps/server/src/infra/' },
      to: {
        path: '^apps/server/src/([^/]+)/(?!index\\.ts$)',
        pathNot: '^apps/server/src/($1|infra)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js'],
    },
  },
};
