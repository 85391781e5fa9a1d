import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  // The server's bundle starts from the web process, so that it and the routes share one database connection.
  build: isSsrBuild ? { rollupOptions: { input: "./server/web/start.ts" } } : { assetsInlineLimit: 0 },
  plugins: [tailwindcss(), reactRouter()],
}));
