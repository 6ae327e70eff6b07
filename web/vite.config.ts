import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/static/',
  plugins: [react()],
  html: { cspNonce: '__CSP_NONCE__' },
  build: { outDir: 'dist', assetsInlineLimit: 0, target: 'es2022', manifest: 'manifest.json' },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
})
