/** The arrows of docs/decisions/0001-rooms.md: app → ui, server → db → core. */
const from = (path) => ({ path });
/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "no-orphans",
      severity: "error",
      from: { orphan: true, pathNot: ["^workers/", "\\.d\\.ts$", "\\.test\\.ts$", "^app/error\\.tsx$"] },
      to: {},
    },
    {
      name: "core-stands-alone",
      comment: "core imports nothing outside core but zod",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { pathNot: ["^core/", "^node_modules/zod/"] },
    },
    {
      name: "core-tests-use-only-test-tools",
      severity: "error",
      from: { path: "^core/.*\\.test\\.ts$" },
      to: { pathNot: ["^core/", "^node_modules/(zod|fast-check|@jest|@types/jest)/"] },
    },
    { name: "quantity-is-the-ground", severity: "error", from: from("^core/quantity/"), to: { path: "^core/(?!quantity/)" } },
    {
      name: "material-is-the-ground",
      severity: "error",
      from: from("^core/material/"),
      to: { path: "^core/(?!quantity/|material/)" },
    },
    { name: "body-knows-nobody", severity: "error", from: { path: "^core/body/", pathNot: "\\.test\\.ts$" }, to: { path: "^core/(?!body/)" } },
    {
      name: "master-knows-only-the-ground",
      severity: "error",
      from: { path: "^core/master/", pathNot: "\\.test\\.ts$" },
      to: { path: "^core/(?!quantity/|material/|body/|master/)" },
    },
    {
      name: "rooms-below-the-roof",
      severity: "error",
      from: from("^core/(elastic|heat|mould|batch|cure|fit|record|weigh|device|clock|schedule)/"),
      to: { path: "^core/(plan/|draw/|operations)" },
    },
    { name: "rack-stands-on-plan", severity: "error", from: from("^core/(?!rack/|operations)"), to: { path: "^core/rack/" } },
    { name: "plan-is-not-drawn", severity: "error", from: from("^core/plan/"), to: { path: "^core/(draw/|operations)" } },
    { name: "contract-knows-only-core", severity: "error", from: from("^contract/"), to: { path: "^(app|ui|server|db|make|workers)/" } },
    { name: "db-knows-only-core", severity: "error", from: from("^db/"), to: { path: "^(app|ui|server|workers|make|contract)/" } },
    { name: "make-knows-only-core", severity: "error", from: from("^make/"), to: { path: "^(app|ui|server|db|workers|contract)/" } },
    { name: "make-is-reached-through-server", severity: "error", from: { path: "^(app|ui|core|db|workers|contract)/" }, to: { path: "^make/" } },
    {
      name: "stored-things-are-planned-in-one-place",
      comment: "server/plans.ts gives every plan of a job, a batch or a pour the same materials, history and heat; the demo plans what it is about to store",
      severity: "error",
      from: { path: "^(server|db|make|app)/", pathNot: ["^server/plans\\.ts$", "^db/demo\\.ts$", "\\.test\\.ts$"] },
      to: { path: "^core/plan/plan\\.ts$" },
    },
    { name: "server-knows-no-page", severity: "error", from: from("^server/"), to: { path: "^(app|ui|workers)/" } },
    { name: "workers-know-only-core", severity: "error", from: from("^workers/"), to: { path: "^(app|ui|server|db|make|contract)/" } },
    { name: "ui-knows-contract-and-core", severity: "error", from: from("^ui/"), to: { path: "^(app|server|db|make)/" } },
    { name: "app-reaches-storage-through-server", severity: "error", from: from("^app/"), to: { path: "^(db|make)/" } },
    // Inside ui: data and kit below, form, chart and stage on them, features on top.
    { name: "ui-data-is-the-ground", severity: "error", from: { path: "^ui/data/", pathNot: "\\.test\\.ts$" }, to: { path: "^ui/(?!data/)" } },
    { name: "ui-kit-stands-on-data", severity: "error", from: from("^ui/kit/"), to: { path: "^ui/(?!kit/|data/)" } },
    { name: "ui-form-stands-on-kit", severity: "error", from: from("^ui/form/"), to: { path: "^ui/(?!form/|kit/|data/)" } },
    { name: "ui-chart-stands-on-kit", severity: "error", from: from("^ui/chart/"), to: { path: "^ui/(?!chart/|kit/)" } },
    { name: "ui-stage-stands-below-features", severity: "error", from: from("^ui/stage/"), to: { path: "^ui/features/" } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "^\\.next/" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "require", "node", "default", "types"] },
  },
};
