/** Which part may know which: architecture, checked. */
module.exports = {
  forbidden: [
    {
      name: "no-circular",
      severity: "error",
      from: {},
      to: { circular: true, dependencyTypesNot: ["type-only"] },
    },
    {
      name: "core-knows-nobody",
      severity: "error",
      comment: "core is pure: it imports nothing of the rest, and no Node.js",
      from: { path: "^core/" },
      // Tests may read by what the demo knows of bookings.
      to: { path: "^(app|server|standins|cli|demo|scripts|bench|e2e)/", pathNot: "^demo/details" },
    },
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "server-knows-core",
      severity: "error",
      from: { path: "^server/" },
      to: { path: "^(app|standins|cli|demo|scripts|bench|e2e)/" },
    },
    {
      name: "standins-meet-over-the-network",
      severity: "error",
      from: { path: "^standins/" },
      to: { path: "^(app|server|cli|demo|scripts)/" },
    },
    {
      name: "app-knows-server-and-core",
      severity: "error",
      from: { path: "^app/" },
      to: { path: "^(standins|cli|demo|scripts|bench|e2e)/", pathNot: "^demo/details" },
    },
    {
      name: "screens-take-types-from-the-server",
      comment:
        "Only route modules (loaders, actions) run server code; their components and the shared ones take types",
      severity: "error",
      from: {
        path: "^app/",
        pathNot:
          "^app/([^/]+/acts/.+|ui/(desk|events|paper)|ui/not-found|entry\\.server|account/(sign-in|sign-out|welcome|first-password|account)|waiting/(route|home)|answering/(route|write|resources/.+)|shelves/(route|rows|arrange|proposals)|writing/(new|route|history|resources/.+)|setup/(route|facts|fact|signatures|stationery|usual|fields|people|colleague|teams|house|mail|numbers|mailboxes|mailbox|forms|form|forwarders|questions|answer-times|notices|sources|gaps|resources/.+|start|home)|outside/(route|mailbox|message|message-html|attachment|phone-write)|chats/(route|resources/.+)|fields/(values|save)|report/route|standing/(route|resources/.+)|record/(route|search|customer|organisation|replies)|public/.+)\\.tsx?$",
      },
      to: { path: "^server/", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "details-are-the-demos",
      severity: "error",
      from: { path: "^(core|app)/", pathNot: "(\\.test\\.tsx?|/testing\\.ts)$" },
      to: { path: "^demo/" },
    },
    {
      name: "not-to-test",
      severity: "error",
      from: { pathNot: "(\\.test\\.tsx?$|^e2e/|testing\\.ts$)" },
      to: { path: "(\\.test\\.tsx?$|/testing\\.ts$)" },
    },
    {
      name: "no-orphans",
      severity: "error",
      from: {
        orphan: true,
        pathNot: [
          "\\.d\\.ts$",
          "(^|/)main\\.tsx?$",
          "^app/(routes|entry)",
          "^app/waiting/home",
          "^app/ui/paper\\.ts$",
          "^app/outside/nobody",
          "^app/setup/home",
          "\\.config\\.",
          "^scripts/",
          "^e2e/",
          "^bench/",
        ],
      },
      to: {},
    },
    {
      name: "not-to-dev-dependency",
      severity: "error",
      from: {
        path: "^(app|core|server|standins|cli|demo)/",
        pathNot: "(\\.test\\.tsx?|testing\\.ts|-environment\\.mjs)$|^app/testing/",
      },
      to: {
        dependencyTypes: ["npm-dev"],
        dependencyTypesNot: ["type-only"],
        pathNot: "@types/|@react-router/dev",
      },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^build/|\\.react-router|\\+types)" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      extensions: [".ts", ".tsx", ".js", ".mjs", ".json", ".d.ts"],
    },
  },
};
