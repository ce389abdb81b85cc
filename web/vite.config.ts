import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

/** Puts a .gz beside every text file of the build: the server sends it as it is. */
function precompress(): Plugin {
  return {
    name: "precompress",
    apply: "build",
    closeBundle() {
      const dist = join(import.meta.dirname, "dist");
      for (const entry of readdirSync(dist, { recursive: true, withFileTypes: true })) {
        if (!entry.isFile() || !/\.(html|js|css|svg)$/.test(entry.name)) continue;
        const file = join(entry.parentPath, entry.name);
        writeFileSync(`${file}.gz`, gzipSync(readFileSync(file), { level: 9 }));
      }
      writeFileSync(join(dist, ".keep"), "");
    },
  };
}

export default defineConfig({
  plugins: [react(), precompress()],
  build: { target: "es2023" },
  server: { proxy: { "/api": "http://127.0.0.1:8080" } },
  // Generous: a busy machine is slow, not wrong.
  test: { environment: "happy-dom", testTimeout: 60_000, hookTimeout: 60_000, setupFiles: ["src/test/setup.ts"] },
});
