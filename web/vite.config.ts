import { createHash } from 'node:crypto'
import { appendFileSync, readFileSync } from 'node:fs'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'
import { compression } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'

const sum = (...texts: string[]) => createHash('sha256').update(texts.join('\n')).digest('hex').slice(0, 16)
const text = (path: string) => readFileSync(new URL(path, import.meta.url), 'utf8')

/** `./spissus` builds beside what is served, and puts it in its place when it is whole. */
const into = `${process.env.SPISSUS_BUILD ?? 'builds/by-hand'}/site`

/** The service worker is built apart: what it bundles is named beside the rest. */
const licencesOfTheWorker: Plugin = {
  name: 'licences-of-the-worker',
  apply: 'build',
  closeBundle() {
    for (const name of ['core', 'precaching', 'routing', 'strategies'].map((part) => `workbox-${part}`)) {
      const { version, license } = JSON.parse(text(`node_modules/${name}/package.json`)) as { version: string; license: string }
      appendFileSync(new URL(`${into}/licences.md`, import.meta.url), `\n## ${name} - ${version} (${license})\n\n${text(`node_modules/${name}/LICENSE`)}`)
    }
  },
}

// Django serves `site` of a build; the manifest of what to load lies beside it, where it is not served.
export default defineConfig(({ command }) => ({
  base: '/static/',
  // Answers of another shape are of no use to a page: what was kept of them is left.
  define: { __SHAPES__: JSON.stringify(sum(text('src/api/schema.d.ts'))) },
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      injectRegister: false,
      manifest: {
        name: 'Spissus',
        short_name: 'Spissus',
        description: 'From the strained liquid of a braise to a finished sauce.',
        id: '/',
        start_url: '/',
        scope: '/',
        display: 'standalone',
        background_color: '#f3f2ee',
        theme_color: '#1d2326',
        icons: [
          { src: 'icon.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: 'icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: 'icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: 'icon-whole-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      injectManifest: {
        globPatterns: ['assets/*.{js,css,woff2}'],
        dontCacheBustURLsMatching: /^assets\//,
        manifestTransforms: [
          // The page itself is Django's; what is kept of it is of the same build as what it loads.
          (entries) => ({
            manifest: [...entries, { url: '/', revision: sum(...entries.map(({ url }) => url), text('../server/config/templates/page.html')), size: 0 }],
          }),
        ],
      },
    }),
    licencesOfTheWorker,
    // Beside each file, so that nothing is compressed while somebody waits.
    compression({ algorithms: ['gzip', 'brotliCompress'], include: /\.(js|css|svg|webmanifest)$/, threshold: 400 }),
  ],
  publicDir: command === 'build' ? 'public' : false,
  build: {
    manifest: true,
    license: { fileName: 'licences.md' },
    outDir: into,
    emptyOutDir: true,
    rollupOptions: { input: 'src/main.tsx' },
  },
  server: { host: '127.0.0.1', port: 5173, strictPort: true, origin: 'http://127.0.0.1:5173' },
}))
