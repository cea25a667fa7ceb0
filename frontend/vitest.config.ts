import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

// Rules without React are tested in Node alone; parts of the screen, in a document without a browser.
const rules = { name: "rules", include: ["src/**/*.test.ts"], environment: "node" };
const parts = { name: "parts", include: ["src/**/*.test.tsx"], environment: "happy-dom", setupFiles: ["src/testing/setup.ts"], testTimeout: 30_000, restoreMocks: true };

export default defineConfig({
  plugins: [react()],
  test: { isolate: false, projects: [{ extends: true, test: rules }, { extends: true, test: parts }] },
});
