import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { styledIDs } from "../styledIDs.ts";

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), styledIDs],
  ssr: { noExternal: true },
  build: { ssr: "form.tsx", outDir: "../../.mokren/prerender", emptyOutDir: true, target: "node20" },
});
