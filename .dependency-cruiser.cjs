// The rooms of the house and the only arrows between them. docs/architecture.md draws them.
const rooms = {
  core: [],
  contract: ["core"],
  server: ["core", "contract"],
  web: ["core", "contract"],
  demo: ["core", "contract"],
  // The pictures of the docs are taken of a school as the tests start it.
  scripts: ["core", "demo", "contract", "e2e"],
  e2e: ["demo"],
};
const inCore = [
  "phonics",
  "words",
  "order",
  "roster",
  "ledger",
  "checks",
  "reading",
  "mastery",
  "groups",
  "plans",
  "readers",
];
const all = Object.keys(rooms);

/** @type {import("dependency-cruiser").IConfiguration} */
module.exports = {
  forbidden: [
    { name: "no-circle", severity: "error", from: {}, to: { circular: true } },
    {
      name: "not-found",
      severity: "error",
      from: {},
      to: { couldNotResolve: true, pathNot: "^#|\\.css$|^@fontsource|^highs/runtime" },
    },
    ...all.map((room) => ({
      name: `${room}-only-to-${rooms[room].join("-and-") || "itself"}`,
      severity: "error",
      from: { path: `^${room}/`, pathNot: "\\.(test|bench)\\.ts$" },
      to: { path: `^(${all.filter((other) => other !== room && !rooms[room].includes(other)).join("|")})/` },
    })),
    ...inCore.map((room, at) => ({
      name: `core-${room}-only-to-rooms-above`,
      severity: "error",
      from: { path: `^core/${room}/`, pathNot: "\\.(test|bench)\\.ts$" },
      to: { path: `^core/(${inCore.slice(at + 1).join("|") || "none"})/` },
    })),
    {
      name: "core-and-contract-touch-nothing-outside",
      severity: "error",
      from: { path: "^(core|contract)/", pathNot: "\\.(test|bench)\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "a-handler-has-no-database",
      comment: "What routes are given of a school are its repositories; they reach neither tables nor driver.",
      severity: "error",
      from: { path: "^server/.*routes\\.ts$" },
      to: { path: "^server/store/|node_modules/(drizzle-orm|@electric-sql|pg)/" },
    },
    {
      name: "the-whole-database-stays-at-home",
      comment:
        "Only the house, what comes before a school is known, care for all data, and the start hold the database of all schools.",
      severity: "error",
      from: {
        path: "^server/",
        pathNot: "^server/(store/|house\\.ts|people/|care/|main\\.ts|testing\\.ts)|\\.test\\.ts$",
      },
      to: { path: "^server/store/open\\.ts$" },
    },
    {
      name: "the-frame-knows-no-domain",
      severity: "error",
      from: { path: "^server/frame/", pathNot: "\\.test\\.ts$" },
      to: { path: "^server/(?!frame/)" },
    },
    ...Object.entries({
      parts: "app|screens|device",
      device: "app|screens",
      screens: "app",
      workers: "app|screens|device|parts",
    }).map(([room, above]) => ({
      name: `web-${room}-below-${above}`,
      comment: "app stands above the screens, device below them, parts imports neither.",
      severity: "error",
      from: { path: `^web/${room}/`, pathNot: "\\.test\\.tsx?$" },
      to: { path: `^web/(${above})/` },
    })),
    {
      name: "a-screen-alone",
      comment: "A screen imports no other screen.",
      severity: "error",
      from: { path: "^web/screens/([^/]+)/" },
      to: { path: "^web/screens/", pathNot: "^web/screens/$1/" },
    },
    {
      name: "through-the-front-door",
      comment: "A core room is entered by its index.ts.",
      severity: "error",
      from: { path: "^(?!core/)" },
      to: { path: "^core/[^/]+/(?!index\\.ts)" },
    },
    ...inCore.map((room) => ({
      name: `core-${room}-by-its-door`,
      severity: "error",
      from: { path: "^core/", pathNot: `^core/${room}/` },
      to: { path: `^core/${room}/(?!index\\.ts)` },
    })),
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      extensions: [".ts", ".tsx", ".mjs", ".js"],
    },
  },
};
