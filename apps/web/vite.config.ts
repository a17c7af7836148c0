import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const SERVER = 'http://127.0.0.1:4800';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2023', chunkSizeWarningLimit: 2_500 },
  worker: { format: 'es' },
  server: {
    host: '127.0.0.1',
    proxy: {
      // The server refuses foreign origins; the pages that Vite serves are its own.
      '/api': {
        target: SERVER,
        changeOrigin: true,
        configure: (proxy) => {
          proxy.on('proxyReq', (request) => {
            request.removeHeader('origin');
          });
        },
      },
    },
  },
});
