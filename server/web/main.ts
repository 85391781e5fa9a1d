import type * as StartModule from "./start";

/** The web process in production: runs what `npm run build` made. */
const root = new URL("../../build/", import.meta.url);
const { serve } = (await import(new URL("server/index.js", root).href)) as typeof StartModule;
await serve(new URL("client", root).pathname);
