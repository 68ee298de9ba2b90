/** The house's walls: who may import whom. */
const test = '\\.(test|spec)\\.tsx?$'
/** Stations of core in the order in which a lesson travels: none knows those after it. Plan and Script speak the same table. */
const after = {
  '(plan|script)': 'film|cut|send|look|judge|live|next',
  film: 'cut|send|look|judge|live|next',
  cut: 'send|judge|live|next',
  send: 'look|judge|live|next',
  look: 'film|cut|send|judge|live|next',
  judge: 'film|cut|live|next',
  live: 'cut|next',
}
module.exports = {
  forbidden: [
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: { path: '^core' },
      to: { path: '^(server|web|standins|e2e|bench)' },
    },
    {
      name: 'core-is-pure',
      comment: 'No interface, no input or output, no clock of its own',
      severity: 'error',
      from: { path: '^core', pathNot: test },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-knows-four-libraries',
      severity: 'error',
      from: { path: '^core', pathNot: test },
      to: { path: 'node_modules', pathNot: 'node_modules/(zod|pure-rand|culori|intl-messageformat)' },
    },
    {
      name: 'contracts-know-no-station',
      severity: 'error',
      from: { path: '^core/contracts', pathNot: test },
      to: { path: '^core', pathNot: '^core/contracts' },
    },
    ...Object.entries(after).map(([from, to]) => ({
      name: `core-${from.replace(/\W/g, '-')}-knows-none-after-it`,
      severity: 'error',
      from: { path: `^core/${from}/`, pathNot: test },
      to: { path: `^core/(${to})/` },
    })),
    {
      name: 'web-never-imports-server',
      severity: 'error',
      from: { path: '^web' },
      to: { path: '^(server|standins)' },
    },
    {
      name: 'web-stations-stand-alone',
      comment: 'What several use belongs to the frame, the kit or the table',
      severity: 'error',
      from: { path: '^web/stations/([^/]+)/' },
      to: { path: '^web/stations/', pathNot: '^web/stations/$1/' },
    },
    {
      name: 'web-ground-knows-no-station',
      severity: 'error',
      from: { path: '^web/(frame|kit|table|saving)/' },
      to: { path: '^web/(stations|home-page)/' },
    },
    {
      name: 'server-never-imports-web-or-standins',
      severity: 'error',
      // Tests may have the stand-ins at their side.
      from: { path: '^server', pathNot: '\\.test\\.ts$' },
      to: { path: '^(web|standins)' },
    },
    {
      name: 'server-platform-knows-no-room',
      severity: 'error',
      from: { path: '^server/platform/', pathNot: test },
      to: { path: '^server/(?!platform/)' },
    },
    {
      name: 'server-rooms-share-stores-and-jobs',
      comment: 'Nobody calls another room’s routes',
      severity: 'error',
      from: { path: '^server/([^/]+)/', pathNot: test },
      to: { path: '^server/.+routes\\.ts$', pathNot: '^server/$1/' },
    },
    {
      name: 'standins-talk-over-http',
      severity: 'error',
      from: { path: '^standins' },
      to: { path: '^(server|web)' },
    },
    {
      name: 'sql-only-in-stores',
      comment: 'A room asks its store',
      severity: 'error',
      from: {
        path: '^server/',
        pathNot: `(^server/(platform|demo)/|^server/testing\\.ts$|store\\.ts$|drizzle\\.config|^server/film/test-takes|^server/trials/system|${test})`,
      },
      to: { path: 'node_modules/(drizzle-orm|pg)/|platform/schema' },
    },
    {
      name: 'home-page-stays-small',
      severity: 'error',
      from: { path: '^web/home-page', pathNot: test },
      to: { path: '^web/(frame|stations|kit)|node_modules/(swr|radix-ui|react-router|lucide-react)' },
    },
    {
      name: 'nobody-needs-the-browser-tests',
      severity: 'error',
      from: { pathNot: '^(e2e|bench|docs)/' },
      to: { path: '^(e2e|bench)/' },
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
