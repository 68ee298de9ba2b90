/** The house's walls: who may import whom. */
module.exports = {
  forbidden: [
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: { path: '^core' },
      to: { path: '^(server|web|standins)' },
    },
    {
      name: 'core-is-pure',
      comment: 'No interface, no input or output, no clock of its own',
      severity: 'error',
      from: { path: '^core', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-knows-three-libraries',
      severity: 'error',
      from: { path: '^core', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules', pathNot: 'node_modules/(zod|pure-rand|culori)' },
    },
    {
      name: 'web-never-imports-server',
      severity: 'error',
      from: { path: '^web' },
      to: { path: '^(server|standins)' },
    },
    {
      name: 'server-never-imports-web-or-standins',
      severity: 'error',
      from: { path: '^server' },
      to: { path: '^(web|standins)' },
    },
    {
      name: 'standins-talk-over-http',
      severity: 'error',
      from: { path: '^standins' },
      to: { path: '^(server|web)' },
    },
    {
      name: 'sql-only-in-stores',
      comment: 'A station’s routes ask its store; jobs may ask several',
      severity: 'error',
      from: { path: '^server/[^/]+/routes\\.ts$' },
      to: { path: 'node_modules/(drizzle-orm|pg)/|platform/schema' },
    },
    {
      name: 'home-page-stays-small',
      severity: 'error',
      from: { path: '^web/home-page' },
      to: { path: '^web/(frame|stations|kit)|node_modules/(swr|radix-ui|react-router|lucide-react)' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
}
