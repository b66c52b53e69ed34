/** The directions of docs/architecture.md. `npm run check` fails on any import against them. */
const no = (name, from, to, comment) => ({ name, severity: "error", comment, from: { path: from }, to: { path: to } });
/** The same for all that is reached, however many files lie between. */
const never = (name, from, to, comment) => ({ name, severity: "error", comment, from: { path: from }, to: { path: to, reachable: true } });
const page = "^node_modules/(react|react-dom|@chakra-ui|@emotion|next)/";
module.exports = {
  forbidden: [
    {
      name: "kernel-is-the-ground",
      severity: "error",
      comment: "the kernel imports nothing above it",
      from: { path: "^src/core/kernel/", pathNot: "\\.test\\.ts$" },
      to: { path: "^src/", pathNot: "^src/core/kernel/" },
    },
    never("overlays-reach-no-operator-code", "^src/overlay-page/", `^src/(server|app|ui|practice)/|${page}`, "an overlay page is light"),
    never(
      "scenes-reach-no-operator-code",
      "^src/games/(registry-scenes|[^/]+/scene)\\.ts$",
      `^src/(server|app|ui)/|${page}`,
      "scenes run in the overlay page",
    ),
    never(
      "the-engine-reaches-no-renderer",
      "^src/server/engine/engine\\.ts$",
      `^src/(games|overlay|overlay-page|app|ui)/|${page}`,
      "the engine shows nothing",
    ),
    never("the-core-reaches-nothing-else", "^src/core/modules\\.ts$", "^src/(?!core/)", "the core is alone"),
    { name: "no-cycles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "core-is-alone",
      severity: "error",
      comment: "core imports nothing outside itself but Zod, persistent collections, hashes, canonical JSON and a message formatter",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: { pathNot: ["^src/core/", "^node_modules/(zod|immutable|@noble/hashes|canonicalize|intl-messageformat|@formatjs/[^/]+)/"] },
    },
    no("games-need-core-and-kit", "^src/games/", "^src/(server|app|practice|overlay-page)/", "what shows a game never reaches the server"),
    {
      name: "games-never-import-each-other",
      severity: "error",
      from: { path: "^src/(?:core/)?games/([^/]+)/" },
      to: { path: "^src/(?:core/)?games/([^/]+)/", pathNot: "^src/(?:core/)?games/$1/" },
    },
    no(
      "overlay-kit-is-light",
      "^src/overlay/",
      "^src/(games|server|app|ui|practice|overlay-page)/",
      "the kit knows no game and no operator code",
    ),
    no(
      "overlay-page-is-light",
      "^src/overlay-page/",
      "^src/(server|app|ui|practice)/|sheet\\.tsx$|^node_modules/(react|react-dom|@chakra-ui|next)/",
      "the overlay page never loads operator code",
    ),
    no(
      "scenes-are-light",
      "^src/games/(registry-scenes|[^/]+/[^/]*(scene|paint)[^/]*$)",
      "^src/ui/|sheet\\.tsx$|^node_modules/(react|react-dom|@chakra-ui|next)/",
      "scenes run in the overlay page",
    ),
    no("ui-knows-no-server", "^src/ui/", "^src/(server|app|games|practice)/", "shared interface parts need core and the kit only"),
    no("server-knows-no-interface", "^src/server/", "^src/(app|ui|games|overlay|overlay-page)/", "the server needs core only"),
    {
      name: "nothing-imports-practice",
      severity: "error",
      comment: "the practice rig is reached through open protocols only; tests may start it",
      from: { path: "^src/(?!practice/)", pathNot: "\\.test\\.ts$" },
      to: { path: "^src/practice/" },
    },
    no(
      "practice-knows-core-only",
      "^src/practice/",
      "^src/(server|app|ui|games|overlay|overlay-page)/",
      "the practice rig is a stranger to the server",
    ),
    {
      name: "adapters-are-chosen-in-one-place",
      severity: "error",
      from: { path: "^src/(server/engine|server/ports|app)/", pathNot: "\\.test\\.ts$" },
      to: { path: "^src/server/adapters/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      extensions: [".ts", ".tsx", ".js", ".mjs", ".cjs", ".json"],
    },
  },
};
