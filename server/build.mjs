import path from 'node:path'
import { build } from 'esbuild'

/** Bundles the server's programs into dist/server, our own code only, so that they start without compiling. */
const root = path.resolve(import.meta.dirname, '..')
await build({
  absWorkingDir: root,
  entryPoints: {
    start: 'server/start.ts',
    web: 'server/web.ts',
    worker: 'server/worker.ts',
    keep: 'server/keep/main.ts',
    'photo-helper': 'server/send/photo-helper.ts',
    apart: 'server/platform/apart/thread.ts',
    camera: 'standins/service.ts',
    day: 'standins/demo/day.ts',
    homes: 'standins/homes/main.ts',
    'home-page': 'web/home-page/render.tsx',
  },
  outdir: 'dist/server',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  platform: 'node',
  jsx: 'automatic',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [
    {
      name: 'libraries-stay-outside',
      setup: (b) =>
        b.onResolve({ filter: /^[^./]/ }, (a) =>
          a.path.startsWith('@awlbox/') || a.kind === 'entry-point'
            ? undefined
            : { path: a.path, external: true },
        ),
    },
  ],
})
