import path from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'
import { build as bundle } from 'esbuild'
import { compression } from 'vite-plugin-compression2'

/** While developing, a home's link opens the home page, as the server does it. */
const homeLinks: Plugin = {
  name: 'home-links',
  configureServer: (server) => {
    server.middlewares.use((req, _res, next) => {
      if (req.url?.startsWith('/h/') || req.url?.startsWith('/see/')) req.url = '/home.html'
      next()
    })
  },
}

/** The home page's worker: one file at a fixed address, since a phone asks for it again by that. */
const homeWorker: Plugin = {
  name: 'home-worker',
  apply: 'build',
  async generateBundle() {
    const built = await bundle({
      entryPoints: [path.join(import.meta.dirname, 'home-page/worker.ts')],
      write: false,
      bundle: true,
      minify: true,
      format: 'iife',
      target: 'es2022',
      define: { 'process.env.NODE_ENV': '"production"' },
    })
    this.emitFile({ type: 'asset', fileName: 'home-worker.js', source: built.outputFiles[0]!.contents })
  },
}

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    homeLinks,
    homeWorker,
    react(),
    tailwindcss(),
    compression({ algorithms: ['gzip', 'brotliCompress'], threshold: 800 }),
  ],
  worker: { format: 'es' },
  build: {
    outDir: path.join(import.meta.dirname, 'dist'),
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: {
        index: path.join(import.meta.dirname, 'index.html'),
        home: path.join(import.meta.dirname, 'home.html'),
      },
    },
  },
  // With its stroke: /api.ts is a module of the pages.
  server: { proxy: { '/api/': process.env.AWLBOX_ADDRESS ?? 'http://127.0.0.1:4180' } },
})
