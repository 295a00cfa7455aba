import optimizeLocales from "@react-aria/optimize-locales-plugin";
import babel from "@rolldown/plugin-babel";
import react, { reactCompilerPreset } from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { styledIDs } from "./styledIDs.ts";

/** The core is by far the largest file. */
const largest = 12_000_000;

/** What the first script decides with, before anything else is fetched. */
const first =
  /src\/(main|prefetch|routes|turns|api\/ahead|body\/figurePath|screens\/load|core\/(lastMe|loadCore|core|workerLink|journal|localIDs))\.tsx?$|routes\.json$/;
/** What the form at the door needs beside its own. */
const signin =
  /node_modules\/(react|react-dom|scheduler|styled-components|stylis|@emotion\/[\w-]+|@fontsource-variable\/[\w-]+|openapi-fetch)\/|src\/(SignInRoot|SignInForm|screens\/signin\/(SignIn|SignInPage|plain)|theme|api\/client|core\/text|parts\/(Box|layout|painted|Mark|pressable|useTry))\.tsx?$/;

/** Where each touch is answered: what a component has drawn is drawn again only where what it shows has
 * changed (React's compiler). Whoever reads what stands outside of React there says "use no memo". */
const touched = /src\/(screens\/(hold|visit|progress|sequence)|body|charts|parts)\//;

/** A browser fetches six files at a time, so what most screens share comes in few. */
const groups = [
  { name: "first", test: (id: string) => first.test(id) || /preload-helper|rolldown/.test(id), priority: 4 },
  { name: "signin", test: signin, priority: 3 },
  // The frame and the day, with all that they use of the libraries and no more.
  { name: "frame", test: /src\/(AppRoot|screens\/Day)\.tsx$/, priority: 2.5 },
  {
    name: "aria",
    test: /node_modules\/(react-aria|react-stately|@react-|@internationalized|@swc)/,
    minShareCount: 6,
    priority: 2,
  },
  { name: "app", test: /src\/|node_modules\//, minShareCount: 2 },
];
const output = { codeSplitting: { groups } };

const ofForm = new Set(["signin", "rolldown-runtime"]);
const ofProgram = new Set(["frame"]);

/** What every page of the program needs is asked for with the first script, and not after it: scripts, and
 * the letters, without which a page would be laid out twice. The page that begins with the form does not
 * ask for what is marked as the program's (prerender/write.mjs). */
const preload: Plugin = {
  name: "preload",
  transformIndexHtml: {
    order: "post",
    handler: (_, { bundle }) =>
      Object.values(bundle ?? {}).flatMap((file) => {
        const letters = file.type === "asset" && /-latin-wght-normal-.*\.woff2$/.test(file.fileName);
        const ofEvery = file.type === "chunk" && (ofForm.has(file.name) || ofProgram.has(file.name));
        if (!letters && !ofEvery) return [];
        return {
          tag: "link",
          attrs: {
            ...(letters ? { rel: "preload", as: "font", type: "font/woff2" } : { rel: "modulepreload" }),
            crossorigin: true,
            href: `/${file.fileName}`,
            "data-program": letters || ofProgram.has(file.name),
          },
          injectTo: "head",
        };
      }),
  },
};

/** Files of libraries that choose among languages and calendars, and what is left of them with one. */
const oneOfMany: [file: RegExp, code: string][] = [
  [
    /react-aria\/.*\/i18n\/useDefaultLocale\.mjs$/,
    `const here = { locale: "en-GB", direction: "ltr" };
export const getDefaultLocale = () => here;
export const useDefaultLocale = () => here;`,
  ],
  [
    /@internationalized\/date\/.*\/createCalendar\.mjs$/,
    `import { GregorianCalendar } from "./calendars/GregorianCalendar.mjs";
export const createCalendar = () => new GregorianCalendar();`,
  ],
];

/** The program speaks one language. Asking the browser for its own at the start loads its tables of all
 * languages, a tenth of what the form at the door takes; so does asking in which direction it is written,
 * and in German whether the browser can write signs, which every one that is built for can. */
const oneLanguage: Plugin = {
  name: "one-language",
  enforce: "pre",
  transform: {
    filter: { id: /@internationalized\/number\/.*NumberFormatter/ },
    handler(code) {
      const out = code.replace(/new Intl\.NumberFormat\('de-DE'.*?=== '\w+'/gs, "true");
      if (out === code) this.error("the library asks otherwise now");
      return out;
    },
  },
  load: (id) => oneOfMany.find(([file]) => file.test(id))?.[1],
};

// The Go program embeds what is built here. The service worker keeps the shell,
// the core and the figure, so that a bookmark opens without the network; nothing
// of a client goes through it.
export default defineConfig({
  plugins: [
    react(),
    styledIDs,
    babel({ include: touched, presets: [reactCompilerPreset()] }),
    // The program speaks English only; the others are half of the library.
    { ...optimizeLocales.vite({ locales: ["en-GB", "en-US"] }), enforce: "pre" },
    oneLanguage,
    preload,
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
        globPatterns: ["**/*.{js,css,html,svg,woff2,wasm,json}"],
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
  build: {
    outDir: "../api/web/dist",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    target: "es2022",
    rolldownOptions: { output },
  },
  server: {
    proxy: { "/api": { target: process.env.MOKREN_URL ?? "http://127.0.0.1:7470", changeOrigin: false } },
  },
});
