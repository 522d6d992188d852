/** Imports run one way: pages → views | server, views → workers → core, server → site → core. */
const only = (from, ...to) => ({
  name: `${from}-imports`,
  severity: 'error',
  comment: `src/${from} may import only itself${to.map((name) => ` and ${name}`).join('')}`,
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [from, ...to].map((name) => `^src/${name}/`) },
})
module.exports = {
  forbidden: [
    only('core'),
    only('site', 'core'),
    only('server', 'site', 'core'),
    only('workers', 'core'),
    only('views', 'workers', 'core'),
    only('pages', 'views', 'server'),
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    { name: 'core-is-pure', severity: 'error', from: { path: '^src/core/' }, to: { dependencyTypes: ['core'] } },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    moduleSystems: ['es6'],
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
}
