import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// Django serves the page; Vite leaves it a manifest of what to load.
export default defineConfig(({ command }) => ({
  base: '/static/',
  plugins: [react(), tailwindcss()],
  publicDir: command === 'build' ? 'public' : false,
  build: {
    manifest: true,
    outDir: 'dist',
    rollupOptions: { input: 'src/main.tsx' },
  },
  server: { host: '127.0.0.1', port: 5173, strictPort: true, origin: 'http://127.0.0.1:5173' },
}))
