"use client";

import dynamic from "next/dynamic";
import { memo, useDeferredValue, useMemo } from "react";
import { JACKET_KEYS, JACKETS, pick } from "@/core/material";
import { hardnessAnswers, MOST_WALL_MM, stretchIn, type StrengthDecision } from "@/core/mould";
import { boardsFor } from "@/core/plan";
import { Pick } from "../../../kit/Pick";
import { Figure } from "../../../kit/controls";
import { CORE_WORDS, GradeMark, STRETCH_WORDS, WALL_WORDS } from "../../../kit/GradeMark";
import { tradeOff, WALL_SPAN, withWall, type TradeQuestion } from "@/core/mould";
import { Drag } from "../../../kit/Drag";
import { Fold } from "../../../kit/Fold";
import { useUnits } from "../../../kit/units";
import { JobProvider, useJob } from "../JobContext";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";
import { DataTable } from "../../../kit/DataTable";

const BulgeChart = dynamic(() => import("../../../chart/BulgeChart").then((m) => m.BulgeChart), { ssr: false, loading: () => <div className="h-64" /> });

/** Least bulge written as a figure, mm: below it nothing could be measured. */
const LEAST_SHOWN_MM = 0.1;
const small = (mm: number, fmt: (v: number, d: "length") => string, fallsMm = Infinity): string =>
  mm > fallsMm ? "does not stand alone" : mm < LEAST_SHOWN_MM ? `under ${fmt(LEAST_SHOWN_MM, "length")}` : fmt(mm, "length");

export function StrengthStep() {
  const world = useJob();
  // What stands below the slider follows a drag when there is time; the figures at the slider and the drawing follow every frame.
  const calm = useDeferredValue(world);
  const { plan } = world;
  const { say } = useUnits();
  if (!plan.strength) return <p>How the walls stand up shows once the master is measured and the rubber is chosen.</p>;
  if (!plan.strength.worst) return <p>Choose what to cast: its weight is what presses on the walls.</p>;
  const warnings = plan.remarks.filter((r) => r.step === "strength");
  return (
    <>
      {warnings.map((r) => (
        <p key={r.path} className={`hint font-semibold ${r.severity === "fault" ? "!text-no" : "!text-care"}`}>
          {say(r.message)}
        </p>
      ))}
      <WallDrag />
      <More title="What is allowed">
        <Verdict />
      </More>
      <JobProvider value={calm}>
        <Below />
      </JobProvider>
    </>
  );
}

const Below = memo(function Below() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  if (!plan.strength?.worst) return null;
  return (
    <>
      <More title="Behind it">
        <Behind />
      </More>
      <More title="Other fills, other rubber">
        <SideBySide />
        <Hardness />
      </More>
      <More title="Weights and places" now={plan.weights ? fmt(plan.weights.filledG, "mass") : undefined} open={plan.places.some((p) => !p.fits)}>
        <Weights />
        <Places />
      </More>
    </>
  );
});

/** The bulge, as large as it matters. */
function Verdict() {
  const { plan } = useJob();
  const { fmt, band } = useUnits();
  const h = plan.strength!;
  const worst = h.worst!;
  const held = h.support !== "free";
  return (
    <div className="grid gap-3 rounded-xl bg-paper p-3 sm:grid-cols-[1.3fr_1fr]">
      <Figure
        name={held ? `${worst.wall.name} without what stands behind it` : `${worst.wall.name} bulges`}
        size={held ? "text-2xl" : "text-4xl"}
        note={
          worst.mostMm.typical > h.fallsMm
            ? `its walls give more than a tenth of its width; ${fmt(h.toleranceMm, "length")} allowed`
            : `${band(worst.mostMm, "length")}, most ${fmt(worst.atMm, "length")} above the floor; ${fmt(h.toleranceMm, "length")} allowed`
        }
      >
        {small(worst.mostMm.typical, fmt, h.fallsMm)}
      </Figure>
      <div className="min-w-0">
        <GradeMark grade={h.verdict} words={held ? { holds: "Held", close: "Not worked out", bulges: "Not held" } : WALL_WORDS} />
        <p className="hint">
          {h.support === "jacket"
            ? "Something rigid stands behind the rubber, and rubber hardly gives in bulk: it stays in shape."
            : h.support === "boards"
              ? "Boards stand behind the rubber; see below what they need."
              : worst.wall.kind === "flat"
                ? "Between edges held and edges hinged, because neighbouring walls yield too, and the spread of this rubber's hardness."
                : "Between rings tied to the base, which helps most low down, and free rings, which are too much there; and the spread of this rubber's hardness."}
        </p>
      </div>
      <div className="grid grid-cols-2 gap-3 sm:col-span-2">
        <JobField path="strength.toleranceMm" />
        <JobField path="strength.tolerancePct" />
      </div>
    </div>
  );
}

/** Drag the wall: bulge, rubber, money and stretch follow. */
function WallDrag() {
  const { job, plan, edit } = useJob();
  const { fmt } = useUnits();
  const rubber = plan.rubber!;
  const h = plan.strength!;
  const layout = plan.layout!;
  const own = layout.kind === "block" && job.mould.ownBox !== null;
  const wallMm = layout.kind === "skin" ? layout.skinMm : layout.box.leastWallMm;
  // The curve is the same wherever the wall is dragged; only other decisions change it.
  const question = useDeferredValue(
    JSON.stringify({
      master: job.master,
      mould: withWall({ ...job.mould, wallMm: 15 }, layout.kind, 15),
      strength: job.strength,
      shoreA: rubber.shoreA,
      rubberGMl: rubber.densityGMl.typical,
      fillGMl: plan.castBatch?.wetDensityGMl ?? 1,
    } satisfies TradeQuestion),
  );
  // The chart follows when there is time; the figures beside it follow every frame.
  const shownWallMm = useDeferredValue(wallMm);
  const trade = useMemo(() => tradeOff(JSON.parse(question) as TradeQuestion), [question]);
  const set = (v: number) => edit((j) => ({ ...j, mould: withWall(j.mould, layout.kind, v) }));
  const atLeast = (mm: number | null) => (mm === null ? `none up to ${fmt(MOST_WALL_MM, "length")}` : fmt(mm, "length"));
  return (
    <div className="space-y-2">
      {own ? (
        <p className="hint">The box you have decides the wall: {fmt(wallMm, "length")}.</p>
      ) : (
        <Drag
          label={layout.kind === "skin" ? "Thickness of the skin" : "Thickness of the walls"}
          shown={fmt(wallMm, "length")}
          value={wallMm}
          min={WALL_SPAN.min}
          max={WALL_SPAN.max}
          step={0.5}
          spoken={`${fmt(wallMm, "length")}, bulge ${small(h.worst!.mostMm.typical, fmt, h.fallsMm)}`}
          onChange={set}
        />
      )}
      <Figure name="Rubber" size="text-xl" note={plan.rubberCost === null ? undefined : `costs ${fmt(plan.rubberCost, "money")}`}>
        {fmt(plan.tally.rubberG, "mass")}
      </Figure>
      {trade && (
        <p>
          <b>Stands alone from {atLeast(trade.least.likelyMm)}</b>, at its softest {atLeast(trade.least.surelyMm)}.
        </p>
      )}
      {trade && trade.points.length > 1 && (
        <More title="What more rubber buys">
          <BulgeChart points={trade.points} toleranceMm={h.toleranceMm} wallMm={shownWallMm} />
          {plan.rubberCost === null && <p className="hint">Give the rubber a price per kilogram in Materials, and the cost shows here.</p>}
        </More>
      )}
    </div>
  );
}

/** What stands behind the rubber while it is filled. */
function Behind() {
  const { job, plan, catalogue, edit } = useJob();
  const { fmt, band } = useUnits();
  const h = plan.strength!;
  const block = plan.layout?.kind === "block";
  // Boards are offered where the walls do not hold alone; worked out when there is time.
  const asked = useDeferredValue(useMemo(() => ({ plan, job }), [plan, job]));
  const wanted = h.boards === null && h.worst?.grade !== "holds";
  const offered = useMemo(() => {
    const { body, layout, castBatch } = asked.plan;
    return wanted && body && layout && castBatch ? boardsFor(asked.job, catalogue, body, layout, castBatch.wetDensityGMl) : null;
  }, [asked, catalogue, wanted]);
  const boards = h.boards ?? offered;
  return (
    <div className="space-y-3">
      <h3 className="text-lg font-bold">Behind the rubber while it is filled</h3>
      <div className="grid gap-3 sm:grid-cols-2">
        <Pick
          label="Jacket or boards"
          value={job.jacket === "none" ? null : job.jacket}
          options={JACKET_KEYS.filter((k) => k !== "none").map((k) => ({ value: k, label: JACKETS[k].label }))}
          none="Nothing: it stands alone"
          onChange={(k) => edit((j) => ({ ...j, jacket: JACKET_KEYS.find((s) => s === k) ?? "none" }))}
        />
        {block && boards && (
          <Pick
            label="Boards cut from"
            value={job.strength.boardId}
            options={catalogue.boxes.filter((b) => !b.bends).map((b) => ({ value: b.id, label: b.name }))}
            none={`The box's own: ${pick(catalogue.boxes, job.boxId)?.name ?? "not decided"}`}
            onChange={(boardId) => edit((j) => ({ ...j, strength: { ...j.strength, boardId } }))}
          />
        )}
      </div>
      {boards && (
        <div className="rounded-xl bg-paper p-3">
          <p>
            <b>
              {h.boards ? "Boards" : "Or boards"} of {boards.stock.name.toLowerCase()}:{" "}
              {boards.straps.length === 0
                ? "no strap"
                : `${boards.straps.length} ${boards.straps.length === 1 ? "strap" : "straps"} at ${boards.straps.map((z) => fmt(z, "length")).join(", ")}`}
            </b>{" "}
            above the foot, over a batten in the middle of each side.
          </p>
          <p className="hint">
            Each strap pulls {fmt(boards.pullN, "force")}; the board bows {band(boards.bow.mostMm, "length")}.{" "}
            {boards.enough ? "That holds." : "That does not hold: a stiffer board, or a stronger strap."} Straps on bare rubber dent it.
          </p>
          <div className="mt-2 grid grid-cols-2 gap-3">
            <JobField path="strength.strapN" />
          </div>
        </div>
      )}
      <div className="grid grid-cols-2 gap-3">
        <JobField path="strength.bridgeMm" />
        {h.base && (
          <Figure name="Base sags" note={h.base.large ? "far too much to reckon closely: put a board under it" : band(h.base.mostMm, "length")}>
            {fmt(h.base.mostMm.typical, "length")}
          </Figure>
        )}
      </div>
      {h.cores.map((c) => (
        <p key={c.name}>
          <b>{c.name}</b>, {fmt(c.lengthMm, "length")} long on {fmt(c.diameterMm, "length")} ({c.slenderness.toFixed(1)} times as long as wide):{" "}
          <GradeMark grade={c.grade} words={CORE_WORDS} />{" "}
          <span className="text-soft">
            tip sags {fmt(c.sagMm, "length")} lying level; drawn out it stretches about {Math.round(c.pullStrain * 100)} % of the{" "}
            {Math.round(c.safeStrain * 100)} % it should. The grip is a workshop estimate.
          </span>
        </p>
      ))}
    </div>
  );
}

/** The same mould under other fills. */
function SideBySide() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const h = plan.strength!;
  if (h.fills.length === 0) return null;
  return (
    <div>
      <h3 className="text-lg font-bold">The same walls under other fills</h3>
      <DataTable
        label="The same walls under other fills"
        rows={h.fills}
        keyOf={(f) => f.castId}
        columns={[
          { id: "name", header: "Fill", accessorFn: (f) => f.name },
          { id: "wet", header: "Wet", accessorFn: (f) => f.gMl, cell: ({ row }) => fmt(row.original.gMl, "density") },
          { id: "bulge", header: "Bulge", accessorFn: (f) => f.bulgeMm, cell: ({ row }) => <b>{small(row.original.bulgeMm, fmt, h.fallsMm)}</b> },
          { id: "grade", header: "Standing alone", cell: ({ row }) => <GradeMark grade={row.original.grade} words={WALL_WORDS} /> },
        ]}
      />
    </div>
  );
}

/** Soft to let go, firm to hold: both schools with numbers for this piece. */
function Hardness() {
  const { job, plan, catalogue } = useJob();
  const { fmt } = useUnits();
  const h = plan.strength!;
  const answers =
    plan.body && plan.layout && plan.rubber
      ? hardnessAnswers(
          catalogue.rubbers,
          plan.rubber,
          h.support === "free" ? h.worst : null,
          (r) => stretchIn(job.mould, plan.body!, plan.layout!, r.elongationPct).grade,
        )
      : [];
  if (answers.length < 2) return null;
  return (
    <Fold title="Softer or firmer rubber for this piece">
      <DataTable
        label="Softer or firmer rubber for this piece"
        rows={answers}
        keyOf={(r) => r.rubberId}
        marked={(r) => r.rubberId === plan.rubber?.id}
        columns={[
          { id: "name", header: "Rubber", accessorFn: (r) => r.name },
          {
            id: "bulge",
            header: "Bulge",
            accessorFn: (r) => r.bulgeMm ?? 0,
            cell: ({ row: { original: r } }) => {
              if (r.bulgeMm === null) return "held";
              const words = small(r.bulgeMm, fmt, h.fallsMm);
              return <GradeMark grade={r.bulge} words={{ holds: words, close: words, bulges: words }} />;
            },
          },
          { id: "stretch", header: "Letting go", cell: ({ row }) => <GradeMark grade={row.original.stretch} words={STRETCH_WORDS} /> },
          { id: "pull", header: "Pull", accessorFn: (r) => r.effort, cell: ({ row }) => `${row.original.effort.toFixed(1)} ×` },
        ]}
      />
      <p className="hint">Soft rubber lets go of a rigid cast with less pull; firm rubber holds a heavy fill. The pull to open it goes with stiffness.</p>
    </Fold>
  );
}

function Weights() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const w = plan.weights;
  if (!w) return null;
  const rows: [string, number | null][] = [
    ["Empty box", w.boxG],
    ["Box with master and rubber", w.boxedG],
    ["Mould", w.mouldG],
    ["Jacket", w.jacketG],
    ["Mould filled, jacket on", w.filledG],
    ["Casting out of the mould", w.castDemouldedG],
  ];
  return (
    <div>
      <h3 className="text-lg font-bold">What has to be lifted or turned</h3>
      <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
        {rows
          .filter((r): r is [string, number] => r[1] !== null)
          .map(([name, g]) => (
            <li key={name} className="flex justify-between gap-3 border-t border-line py-1">
              <span>{name}</span>
              <b className={g > 23_000 ? "text-no" : ""}>{fmt(g, "mass")}</b>
            </li>
          ))}
      </ul>
    </div>
  );
}

/** Will it go on the shelf, will the cup go in the pot. */
function Places() {
  const { job, plan, edit } = useJob();
  const { say } = useUnits();
  const { stand, chamber } = job.strength;
  const put = (patch: Partial<StrengthDecision>) => edit((j) => ({ ...j, strength: { ...j.strength, ...patch } }));
  return (
    <Fold title="Will it go where it has to: shelf, vacuum pot" open={plan.places.length > 0}>
      <div className="mt-2 space-y-3">
        {plan.places.map((p) => (
          <p key={p.name}>
            <GradeMark grade={p.fits ? "holds" : "bulges"} words={{ holds: `${p.name}: it goes.`, close: p.name, bulges: `${p.name}: no.` }} />{" "}
            <span className="text-soft">{say(p.why)}</span>
          </p>
        ))}
        {stand ? (
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            <JobField path="strength.stand.lengthMm" />
            <JobField path="strength.stand.widthMm" />
            <JobField path="strength.stand.heightMm" />
            <JobField path="strength.stand.loadG" />
          </div>
        ) : (
          <button type="button" className="btn" onClick={() => put({ stand: { lengthMm: 600, widthMm: 300, heightMm: 300, loadG: 20_000 } })}>
            Check a shelf
          </button>
        )}
        {chamber ? (
          <div className="grid grid-cols-2 gap-3">
            <JobField path="strength.chamber.diameterMm" />
            <JobField path="strength.chamber.heightMm" />
          </div>
        ) : (
          <button type="button" className="btn" onClick={() => put({ chamber: { diameterMm: 250, heightMm: 250 } })}>
            Check a vacuum pot
          </button>
        )}
      </div>
    </Fold>
  );
}
