import path from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
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
  server: { proxy: { '/api': process.env.AWLBOX_ADDRESS ?? 'http://127.0.0.1:4180' } },
})
