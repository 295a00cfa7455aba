import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

// The Go program embeds what is built here.
export default defineConfig({
  plugins: [react()],
  build: { outDir: "../api/web/dist", emptyOutDir: true, assetsInlineLimit: 0, target: "es2022" },
  server: {
    proxy: { "/api": { target: process.env.MOKREN_URL ?? "http://127.0.0.1:7470", changeOrigin: false } },
  },
});
