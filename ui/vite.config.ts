import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

/** The core is by far the largest file. */
const largest = 12_000_000;

// The Go program embeds what is built here. The service worker keeps the shell,
// the core and the figure, so that a bookmark opens without the network; nothing
// of a client goes through it.
export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      // src/serviceWorkerUpdate.ts says when a new version is taken: never in the middle of a hold.
      registerType: "prompt",
      injectRegister: false,
      manifest: {
        name: "Mokren",
        short_name: "Mokren",
        start_url: "/",
        display: "standalone",
        background_color: "#f6eee4",
        theme_color: "#2d5f54",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
      },
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2,wasm}"],
        // The bench's module is loaded, and kept, when the bench is opened.
        globIgnores: ["**/bench-*.wasm"],
        maximumFileSizeToCacheInBytes: largest,
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/licences\.txt$/],
        clientsClaim: true,
        skipWaiting: false,
        runtimeCaching: [
          {
            urlPattern: ({ url }) => /^\/api\/(figures?|lattice)\b/.test(url.pathname),
            handler: "StaleWhileRevalidate",
            options: { cacheName: "figure" },
          },
          {
            urlPattern: ({ url }) => /\/assets\/bench-.*\.wasm$/.test(url.pathname),
            handler: "CacheFirst",
            options: { cacheName: "bench", expiration: { maxEntries: 2 } },
          },
        ],
      },
    }),
  ],
  build: { outDir: "../api/web/dist", emptyOutDir: true, assetsInlineLimit: 0, target: "es2022" },
  server: {
    proxy: { "/api": { target: process.env.MOKREN_URL ?? "http://127.0.0.1:7470", changeOrigin: false } },
  },
});
