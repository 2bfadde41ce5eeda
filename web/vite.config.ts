import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// Django serves `dist/site`; the manifest of what to load lies beside it, where it is not served.
export default defineConfig(({ command }) => ({
  base: '/static/',
  plugins: [react(), tailwindcss()],
  publicDir: command === 'build' ? 'public' : false,
  build: {
    manifest: true,
    license: { fileName: 'licences.md' },
    outDir: 'dist/site',
    rollupOptions: { input: 'src/main.tsx' },
  },
  server: { host: '127.0.0.1', port: 5173, strictPort: true, origin: 'http://127.0.0.1:5173' },
}))
