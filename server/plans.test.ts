import { dossierOf, newJob, type Job } from "../core/record";
import { catalogueOf } from "../core/material";
import { freeze } from "../core/plan";
import { plan } from "../core/plan/plan";
import { demoJobs, demoMaterials } from "../db/demo";
import { heatKey, heatStudy, type HeatStudies } from "../core/heat";
import { Shops } from "./fixtures/shop";
import { jobsInHand } from "./jobs";
import { planAll, planJobs } from "./plans";

const catalogue = catalogueOf(demoMaterials());
const comet = demoJobs().find((d) => d.id === "demo-comet-drawer-pull")!.job;
/** A job like the comet but of another size, so that its heat has not been worked out yet. */
const sized = (ml: number): Job => ({ ...comet, master: { ...comet.master, sizes: { ...comet.master.sizes, volumeMl: ml } } });
const pending = (verdicts: { verdict: string; findings: readonly { ruleId: string }[] }[]) =>
  verdicts.some((l) => l.findings.some((f) => f.ruleId === "heat-pending"));

describe("plans with their heat", () => {
  it("settle what data sheets leave open", () => {
    const bare = plan(dossierOf(sized(13), catalogue));
    expect(pending([...bare.chain.links])).toBe(true);
    expect(bare.heat[0]!.study).toBeNull();
    const [full] = planAll([dossierOf(sized(13), catalogue)], 2);
    expect(pending([...full!.chain.links])).toBe(false);
    expect(full!.heat[0]!.study!.skinPeakC.typical).toBeGreaterThan(200);
    expect(full!.tally.verdict).toBe("care");
  });

  it("hold a page up for no more new studies than allowed, and use what is ready for nothing", () => {
    const jobs = [sized(10.1), sized(10.2), sized(10.3)].map((job) => dossierOf(job, catalogue));
    expect(planAll(jobs, 1).map((p) => pending([...p.chain.links]))).toEqual([false, true, true]);
    expect(planAll(jobs, 0).map((p) => pending([...p.chain.links]))).toEqual([false, true, true]);
    expect(planAll(jobs, 5).map((p) => pending([...p.chain.links]))).toEqual([false, false, false]);
  });

  it("one job that cannot be worked out takes no list with it", () => {
    const shops = new Shops();
    const said = jest.spyOn(console, "error").mockImplementation(() => {});
    const w = shops.open(true);
    const lines = jobsInHand(w).lines;
    const stumbles: typeof planAll = (dossiers, budget) => {
      if (dossiers.some((d) => d.job.name === "Nebula knob")) throw new TypeError("a fault of ours");
      return planAll(dossiers, budget);
    };
    const plans = planJobs(w, lines, stumbles);
    expect(plans.filter((p) => p === null)).toHaveLength(1);
    expect(lines[plans.indexOf(null)]!.name).toBe("Nebula knob");
    expect(said).toHaveBeenCalledTimes(1);
    said.mockRestore();
    shops.close();
  });

  it("leave cool casts alone", () => {
    const tile = demoJobs().find((d) => d.id === "demo-moon-phase-tile")!.job;
    expect(planAll([dossierOf(tile, catalogue), dossierOf(newJob("Empty"), catalogue)], 0).map((p) => p.heat.every((h) => h.study === null))).toEqual([
      true,
      true,
    ]);
  });

  it("freeze the verdict that the page showed, not the one before the heat was known", () => {
    const job = sized(13);
    const without = freeze(plan(dossierOf(job, catalogue)), 1, "cast");
    const withHeat = freeze(planAll([dossierOf(job, catalogue)], 1)[0]!, 1, "cast");
    expect([without, withHeat].map((f) => f.ok && f.snapshot.verdict)).toEqual(["untested", "care"]);
  });

  it("ask anew when anything the study reads has changed, and only then", () => {
    const studies: HeatStudies = new Map(plan(dossierOf(comet, catalogue)).heat.map(({ question }) => [heatKey(question), heatStudy(question)]));
    const study = (job: Job) => plan(dossierOf(job, catalogue), studies).heat[0]!.study;
    expect(study(comet)).not.toBeNull();
    expect(study({ ...comet, note: "another note", name: "Comet" })).not.toBeNull();
    expect(study({ ...comet, mould: { ...comet.mould, wallMm: comet.mould.wallMm - 5 } })).toBeNull();
    expect(study({ ...comet, shopC: comet.shopC + 5 })).toBeNull();
    expect(study({ ...comet, session: { pours: 3, everyMin: 20 } })).toBeNull();
  });
});
