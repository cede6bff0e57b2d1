import { newJob, type Job } from "../core/job";
import { catalogueOf } from "../core/material";
import { freeze, plan } from "../core/plan";
import { demoJobs, demoMaterials } from "../db/demo";
import { planAll, studiesOf } from "./heat";

const catalogue = catalogueOf(demoMaterials());
const comet = demoJobs().find((d) => d.id === "demo-comet-drawer-pull")!.job;
/** A job like the comet but of another size, so that its heat has not been worked out yet. */
const sized = (ml: number): Job => ({ ...comet, master: { ...comet.master, sizes: { ...comet.master.sizes, volumeMl: ml } } });
const pending = (verdicts: { verdict: string; findings: readonly { ruleId: string }[] }[]) =>
  verdicts.some((l) => l.findings.some((f) => f.ruleId === "heat-pending"));

describe("plans with their heat", () => {
  it("settle what data sheets leave open", () => {
    const bare = plan(sized(13), catalogue);
    expect(pending([...bare.chain.links])).toBe(true);
    expect(bare.heat[0]!.study).toBeNull();
    const [full] = planAll([{ job: sized(13) }], catalogue);
    expect(pending([...full!.chain.links])).toBe(false);
    expect(full!.heat[0]!.study!.skinPeakC.typical).toBeGreaterThan(200);
    expect(full!.tally.verdict).toBe("care");
  });

  it("hold a page up for no more new studies than allowed, and use what is ready for nothing", () => {
    const jobs = [sized(10.1), sized(10.2), sized(10.3)].map((job) => ({ job }));
    expect(planAll(jobs, catalogue, 1).map((p) => pending([...p.chain.links]))).toEqual([false, true, true]);
    expect(planAll(jobs, catalogue, 0).map((p) => pending([...p.chain.links]))).toEqual([false, true, true]);
    expect(planAll(jobs, catalogue, 5).map((p) => pending([...p.chain.links]))).toEqual([false, false, false]);
  });

  it("leave cool casts alone", () => {
    const tile = demoJobs().find((d) => d.id === "demo-moon-phase-tile")!.job;
    expect(planAll([{ job: tile }, { job: newJob("Empty") }], catalogue, 0).map((p) => p.heat.every((h) => h.study === null))).toEqual([true, true]);
  });

  it("freeze the verdict that the page showed, not the one before the heat was known", () => {
    const job = sized(13);
    const without = freeze(job, 1, catalogue, "cast");
    const withHeat = freeze(job, 1, catalogue, "cast", 0, studiesOf(plan(job, catalogue)));
    expect([without, withHeat].map((f) => f.ok && f.snapshot.verdict)).toEqual(["untested", "care"]);
  });

  it("ask anew when anything the study reads has changed, and only then", () => {
    const studies = studiesOf(plan(comet, catalogue));
    const study = (job: Job) => plan(job, catalogue, { shopC: null }, studies).heat[0]!.study;
    expect(study(comet)).not.toBeNull();
    expect(study({ ...comet, note: "another note", name: "Comet" })).not.toBeNull();
    expect(study({ ...comet, mould: { ...comet.mould, wallMm: comet.mould.wallMm - 5 } })).toBeNull();
    expect(study({ ...comet, shopC: comet.shopC + 5 })).toBeNull();
    expect(study({ ...comet, session: { pours: 3, everyMin: 20 } })).toBeNull();
  });
});
