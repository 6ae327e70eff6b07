import { serwist } from '@serwist/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/static/',
  plugins: [
    react(),
    serwist({
      swSrc: 'worker/sw.ts',
      swDest: 'sw.js',
      swUrl: '/sw.js',
      scope: '/',
      globDirectory: 'dist',
      globPatterns: ['index.html', 'assets/**/*', '*.{webmanifest,png,svg}'],
      maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
      modifyURLPrefix: { '': '/static/' },
      dontCacheBustURLsMatching: /\/assets\/.+-[\w-]{8}\.\w+$/,
      // The page is given out by the server, at the root, with this request's marks in it.
      manifestTransforms: [
        (entries) => ({
          manifest: entries.map((entry) =>
            entry.url === '/static/index.html' ? { ...entry, url: '/' } : entry,
          ),
          warnings: [],
        }),
      ],
    }),
  ],
  html: { cspNonce: '__CSP_NONCE__' },
  build: { outDir: 'dist', assetsInlineLimit: 0, target: 'es2022', manifest: 'manifest.json' },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
})
