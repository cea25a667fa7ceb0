import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

// Django serves what is built here: the manifest tells it the file names.
export default defineConfig({
  base: "/static/",
  plugins: [react(), tailwindcss()],
  build: {
    manifest: "manifest.json",
    assetsInlineLimit: 0,
    rolldownOptions: {
      input: "src/main.tsx",
      // What every screen needs is one file: each file more costs a request, and bytes of its own.
      output: { codeSplitting: { groups: [{ name: "shared", test: /node_modules\/(react\/|zustand)|createLucideIcon|\/src\/(app\/(notices|showProblem|own)|api\/client|parts\/useTitle)/ }] } },
    },
  },
});
