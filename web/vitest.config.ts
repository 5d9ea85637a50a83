import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

// A slow machine is no failure: nothing here is timed by the wall.
export default defineConfig({ plugins: [react()], test: { testTimeout: 60_000, hookTimeout: 60_000 } });
