import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { reading } from "./vite.plugins.ts";

export default defineConfig({
  plugins: [
    reading(),
    tailwindcss(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src",
      filename: "sw.ts",
      injectRegister: null,
      manifest: false,
      // The page itself carries a nonce of the server's: the worker fetches it, it is not part of the build.
      injectManifest: { globPatterns: ["assets/*", "*.svg"] },
    }),
  ],
  // The server puts the real nonce here on every request.
  html: { cspNonce: "__KEMBLE_NONCE__" },
  build: { target: "es2022", assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
});
