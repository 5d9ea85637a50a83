import { defineConfig } from "vitest/config";
import { reading } from "./vite.plugins.ts";

// A slow machine is no failure: nothing here is timed by the wall. Files share a worker's modules, which takes half the
// time of loading them for each: a test cleans up after itself.
export default defineConfig({
  plugins: [reading()],
  test: {
    testTimeout: 60_000,
    hookTimeout: 60_000,
    pool: "threads",
    isolate: false,
    setupFiles: ["src/testingSetup.ts"],
  },
});
