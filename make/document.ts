import { buildScene, stagesOf, type Sheet, type SheetBlock, type Stage } from "../core/draw";
import { JACKET_PRACTICE, JACKETS, pick, SEAL_PRACTICE, type Catalogue } from "../core/material";
import { buildOrder, INSERT_PRACTICE, LAYER_WAYS, OPENING } from "../core/mould";
import { layerNotes, needsOf, type Plan, type PlannedPour, type StepId } from "../core/plan";
import { quote, type Dimension } from "../core/quantity";
import type { Job } from "../core/record";
import { piecesOf } from "./pieces";

/** What paper shows after the first page: the jacket and the casting; the pours stand on the first. */
const LATER: readonly Stage[] = ["pour1", "jacket", "cast"];
const span = (r: { low: number; high: number }, d: Dimension): string => (r.low === r.high ? quote(r.low, d) : `${quote(r.low, d)} to ${quote(r.high, d)}`);
const mm = (v: number) => quote(v, "length");
const g = (v: number) => quote(v, "mass");
const ml = (v: number) => quote(v, "volume");
const h = (r: { low: number; high: number }) => span(r, "duration");

/** What the last casting of its newest mould taught, in a line; null where nothing was cast, or nothing was learned. */
type Taught = string | null;

/**
 * A job on paper. The first page is what is taken to the bench: the drawing, the grams to weigh, fill lines, clay bed, windows and
 * times, the one lesson. Then the whole of it in the order of work, with each caution where it bites.
 */
export function sheetOf(job: Job, revision: number, plan: Plan, catalogue: Catalogue, taught: Taught): Sheet {
  return {
    title: job.name,
    under: `Job sheet, revision ${revision}. ${OPENING[job.mould.opening].label}. ${job.note}`.trim(),
    blocks: [...atTheBench(job, plan, catalogue, taught), { kind: "page" }, ...allOfIt(job, plan, catalogue)],
  };
}

const cautions = (plan: Plan, step: StepId): SheetBlock[] =>
  plan.cautions.filter((c) => c.step === step).map((c): SheetBlock => ({ kind: "caution", text: c.text }));

const pourName = (p: PlannedPour): string => (p.kind === "coat" ? p.name : `Rubber, ${p.name.toLowerCase()}`);

/** When the next thing may be done after a pour: a window for a coat, else when it opens. */
function next(p: PlannedPour): string {
  if (p.wait.until === "recoat") {
    const { opens, closes } = p.cure.tack;
    return `next coat from ${quote(opens.typical, "duration")} to ${quote(closes.typical, "duration")} after mixing`;
  }
  return `open after ${h(p.wait.hours)}`;
}

function atTheBench(job: Job, plan: Plan, catalogue: Catalogue, taught: Taught): SheetBlock[] {
  const { layout, body } = plan;
  const panelMm = pick(catalogue.boxes, job.boxId)?.thicknessMm ?? 0;
  const stages = stagesOf(job.mould.opening, layout, job.jacket !== "none");
  const first = stages.find((s) => s.stage === "pour0") ?? stages[0];
  const scene = first && buildScene({ plan, mould: job.mould, stage: first.stage, panelMm });
  const out: SheetBlock[] = [];
  if (first && scene) out.push({ kind: "scene", label: first.label, scene });
  if (taught) out.push({ kind: "head", text: "Last time" }, { kind: "text", text: taught, strong: true });
  out.push({ kind: "head", text: "At the bench" }, ...cautions(plan, "rubber"));
  if (layout?.kind === "block")
    for (const p of layout.pours)
      if (!p.plug)
        out.push({
          kind: "row",
          name: `${p.name}: fill line above the floor${p.clayMl > 0.5 ? `; clay bed ${mm(p.fromMm)} deep, ${ml(p.clayMl)}` : ""}`,
          value: mm(p.fillLineMm),
        });
  for (const p of plan.pours) {
    if (!p.batch) continue;
    out.push({ kind: "row", name: `${pourName(p)}: ${p.batch.parts.map((c) => `${c.name} ${g(c.massG)}`).join(", ")}`, value: g(p.batch.mixG), large: true });
    out.push({ kind: "text", text: `Pot life ${h(p.cure.potLife.hours)}; ${next(p)}.`, soft: true });
  }
  if (plan.pours.length === 0)
    out.push({ kind: "text", text: body ? "The grams come with the rubber and the way it opens." : "The master is not measured yet." });
  for (const l of plan.layers)
    out.push({
      kind: "row",
      name: `${l.coat ? l.name : l.cast.name}: ${l.batch.parts.map((c) => `${c.name} ${g(c.massG)}`).join(", ")}`,
      value: g(l.batch.mixG),
      large: true,
    });
  const { castCure } = plan;
  if (castCure)
    out.push({
      kind: "text",
      text: `Work it within ${h(castCure.working.hours)}; ${castCure.demould.never ?? `open after ${h(castCure.demould.hours)}`}.`,
      soft: true,
    });
  return out;
}

function allOfIt(job: Job, plan: Plan, catalogue: Catalogue): SheetBlock[] {
  const { body, layout, strength } = plan;
  const out: SheetBlock[] = [];
  const head = (text: string) => out.push({ kind: "head", text });
  const text = (t: string, more: { soft?: boolean; strong?: boolean } = {}) => out.push({ kind: "text", text: t, ...more });
  const row = (name: string, value: string, write = false) => out.push({ kind: "row", name, value, ...(write ? { write } : {}) });

  if (body && layout) {
    head("Sizes");
    text(
      [
        `Master ${mm(body.lengthMm)} × ${mm(body.widthMm)} × ${mm(body.heightMm)}, ${ml(body.volumeMl)}`,
        ...(layout.kind === "block"
          ? [
              `inside of the box ${mm(layout.box.lengthMm)} × ${mm(layout.box.widthMm)}`,
              `wall at least ${mm(layout.box.leastWallMm)}`,
              `cover ${mm(job.mould.coverMm)}`,
              ...(OPENING[job.mould.opening].base ? [`base ${mm(job.mould.baseMm)}`] : []),
              `box high ${mm(layout.wallHeightMm)}`,
            ]
          : [
              `skin ${mm(layout.skinMm)}`,
              ...(layout.flange ? [`flange ${mm(layout.flange.widthMm)}`] : []),
              ...(layout.jacket ? [`jacket ${mm(layout.jacket.thicknessMm)}`] : []),
            ]),
      ].join("; "),
      { strong: true },
    );
  }

  head("Contacts");
  out.push({ kind: "verdict", verdict: plan.chain.verdict });
  for (const l of plan.chain.links.filter((k) => k.verdict !== "sound"))
    out.push({
      kind: "bullet",
      text: `${l.label}: ${l.findings
        .filter((f) => f.verdict !== "sound")
        .map((f) => `${f.reason} ${f.remedy}`)
        .join(" ")}`,
    });

  const order = layout ? buildOrder(job.mould, layout, job.jacket) : [];
  if (order.length > 0) head(`Order of work: ${OPENING[job.mould.opening].label.toLowerCase()}`);
  out.push(...cautions(plan, "prepare"), ...cautions(plan, "box"));
  for (const s of order)
    out.push({
      kind: "tick",
      text: s.what,
      below: [...(s.waits ? [`Waits ${s.waits}.`] : []), ...(s.release.length > 0 ? [`Release first: ${s.release.join("; ")}.`] : [])],
    });

  const pieces = piecesOf(job, plan, catalogue);
  if (pieces.length > 0) {
    head("Cut list");
    for (const p of pieces) row(`${p.count} × ${p.name}, ${p.note}`, `${mm(p.lengthMm)} × ${mm(p.heightMm)}`);
    if (layout?.kind === "block") text(layout.cutNote, { soft: true });
    if (SEAL_PRACTICE[job.sealing]) text(`Seams: ${SEAL_PRACTICE[job.sealing]}`, { soft: true });
  }
  if (layout?.jacket) {
    const j = layout.jacket;
    head(`Jacket: ${JACKETS[j.jacket].label.toLowerCase()}`);
    row("Parts", String(j.parts));
    row("Thickness", mm(j.thicknessMm));
    row("Takes", `${ml(j.volumeMl)}, ${g(j.massG.typical)}`);
    for (const p of j.mix) row(`Jacket: ${p.name.toLowerCase()}`, g(p.massG), true);
    if (j.cloth) row(`${j.cloth.label}, ${j.cloth.layers} layers`, `${mm(j.cloth.stripMm)} of strip ${mm(j.cloth.stripWideMm)} wide`);
    if (j.bolts > 0) row("Bolts along the flanges", String(j.bolts));
    text(`${j.why} ${JACKET_PRACTICE[j.jacket].how} ${j.parts > 1 ? JACKET_PRACTICE[j.jacket].barrier : ""}`, { soft: true });
  }
  const needs = needsOf(plan);
  if (needs.length > 0) head("Not to forget");
  for (const n of needs) out.push({ kind: "tick", text: n.text, below: [] });
  if (strength?.worst) {
    head("Under the fill");
    row(
      "Walls bulge, standing alone",
      strength.worst.mostMm.typical > strength.fallsMm
        ? "does not stand alone"
        : `${mm(strength.worst.mostMm.typical)} (${span(strength.worst.mostMm, "length")})`,
    );
    row("Allowed", mm(strength.toleranceMm));
    if (strength.support === "boards" && strength.boards)
      text(
        `Boards of ${strength.boards.stock.name.toLowerCase()}; straps ${strength.boards.straps.map(mm).join(", ")} above the foot, ${quote(strength.boards.pullN, "force")} each, over battens.`,
      );
    else if (strength.support === "jacket") text("The jacket holds it.");
  }

  for (const p of plan.pours) {
    if (!p.batch) continue;
    head(`${pourName(p)}: ${p.rubber.name}, ${p.batch.ratioLabel}`);
    if (p.kind === "block") row("Fill line above the floor", mm(p.fillLineMm));
    for (const c of p.batch.parts) row(c.name, g(c.massG), true);
    row("In all", g(p.batch.mixG), true);
    text(`Pot life ${h(p.cure.potLife.hours)}; ${next(p)} at ${quote(job.shopC, "temperature")}.`, { soft: true });
  }
  const panelMm = pick(catalogue.boxes, job.boxId)?.thicknessMm ?? 0;
  for (const { stage, label } of stagesOf(job.mould.opening, layout, job.jacket !== "none").filter((s) => LATER.includes(s.stage))) {
    const scene = buildScene({ plan, mould: job.mould, stage, panelMm });
    if (scene) out.push({ kind: "scene", label, scene });
  }
  if (plan.castBatch && plan.cast) {
    const many = job.cast.count === 1 ? "one casting" : `${job.cast.count} castings`;
    for (const l of plan.layers) {
      head(
        l.coat
          ? `${l.name}: ${LAYER_WAYS[l.way].label.toLowerCase()}, ${l.cast.name}, ${many}, ${l.batch.ratioLabel}`
          : `Cast: ${l.cast.name}, ${many}, ${l.batch.ratioLabel}`,
      );
      if (l === plan.layers[0]) out.push(...cautions(plan, "cast"));
      for (const c of l.batch.parts) row(c.name, g(c.massG), true);
      row(l.coat ? "In the pot" : "In all", g(l.batch.mixG), true);
      if (l.coat) {
        row("Stays in the mould, each", g(l.staysG));
        row("Comes back or is left over", g(l.backG));
      }
      for (const n of layerNotes(l)) text(n, { soft: true });
      for (const i of l.coat ? l.inserts : []) out.push({ kind: "bullet", text: `Then goes in: ${i.count} × ${i.label}.` });
      if (l.next) text(`Next layer after ${h(l.next.hours)}.`, { soft: true });
    }
    for (const i of plan.inside?.inserts ?? [])
      out.push({
        kind: "bullet",
        text: `Goes inside: ${i.count} × ${i.label}, ${mm(i.diameterMm)} across, ${mm(i.lengthMm)} long. ${INSERT_PRACTICE[i.kind]}`,
      });
    text(
      `One weighs ${g(plan.castBatch.wetG)} poured, ${g(plan.castBatch.dryG.typical)} finished${plan.weights ? `; the filled mould ${g(plan.weights.filledG)}` : ""}.`,
    );
    if (plan.castCure) {
      text(plan.castCure.demould.never ?? `Open after ${h(plan.castCure.demould.hours)}.`, { strong: true });
      out.push(...cautions(plan, "out"));
    }
  }
  text("Data sheets outrank these figures. Pressure, ventilation, lifting and food sale follow local codes and licensed practice.", { soft: true });
  head("What really happened");
  for (const name of ["Date and who", "Shop temperature", "Rubber poured, g", "Cast poured, g", "Opened after", "What to change next time"])
    row(name, "", true);
  return out;
}
