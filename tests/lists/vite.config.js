import { defineConfig } from "vite";

// The lists that the tests take pictures of; served by the tests themselves under /lists/.
export default defineConfig({ base: "/lists/", build: { chunkSizeWarningLimit: 4_000 } });
