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
    rollupOptions: { input: "src/main.tsx" },
  },
});
