import { postureOf } from "../air";
import { VERDICT_WORD, type Link } from "../fit";
import { JACKETS, pick } from "../material";
import { buoyancy, GRAVITY, OPENING } from "../mould";
import { jacketPartsOf, type Plan, type StepId } from "../plan";
import { quote } from "../quantity";
import type { JobNumber } from "../record";
import { contactsIn } from "./contacts";
import type { Stuff } from "./stuffs";

/** What is to be said of one thing: its one figure, why it is so, what it is made up of, and the numbers that change it. Sizes are quoted. */
export interface Answer {
  title: string;
  /** The figure, or a word; null while it cannot be known. */
  figure: string | null;
  why: string;
  parts: readonly { name: string; value: string }[];
  settings: readonly JobNumber[];
  contacts: readonly Link[];
  /** Where all about it is decided. */
  step: StepId;
}

const mm = (v: number) => quote(v, "length");
const g = (v: number) => quote(v, "mass");
const ml = (v: number) => quote(v, "volume");
const times = (n: number, name: string) => (n === 1 ? name : `${n} × ${name}`);

/** What a stuff on the picture answers when it is touched. `stuffs` are those of the picture. */
export function answerOf(plan: Plan, stuff: Stuff, stuffs: readonly Stuff[]): Answer {
  return { ...answered(plan, stuff), contacts: contactsIn(plan, stuffs, stuff) };
}

type Said = Omit<Answer, "contacts">;

function answered(plan: Plan, stuff: Stuff): Said {
  switch (stuff) {
    case "master":
      return masterAnswer(plan);
    case "rubber":
    case "oldRubber":
    case "tinted":
      return rubberAnswer(plan);
    case "plug":
      return plugAnswer(plan);
    case "clay":
      return clayAnswer(plan);
    case "box":
      return boxAnswer(plan);
    case "jacket":
    case "timber":
      return jacketAnswer(plan);
    case "cast":
    case "hollow":
      return castAnswer(plan);
    case "insert":
      return insertAnswer(plan);
  }
}

function masterAnswer({ body, masterG }: Plan): Said {
  return {
    title: "Volume of the master",
    figure: body && ml(body.volumeMl),
    why: body
      ? `${mm(body.lengthMm)} × ${mm(body.widthMm)} × ${mm(body.heightMm)} over all${body.volumeErrorMl > 0 ? `, ± ${ml(body.volumeErrorMl)}` : ""}.`
      : "Its sizes are still missing.",
    parts: body
      ? [
          { name: body.unknown.includes("area") ? "Surface, roughly" : "Surface", value: quote(body.areaMm2, "area") },
          { name: "Widest", value: `${mm(body.widestMm)} up` },
          ...(masterG === null ? [] : [{ name: "Weighs", value: g(masterG) }]),
        ]
      : [],
    settings: ["master.massG"],
    step: "master",
  };
}

const SKIN_SETTINGS: readonly JobNumber[] = ["mould.skin.coats", "mould.skin.coatMm", "mould.skin.flangeMm", "rubber.marginPct"];
const PUTTY_SETTINGS: readonly JobNumber[] = ["mould.putty.layers", "mould.putty.layerMm", "rubber.marginPct"];

function rubberAnswer({ pours, layout, dossier, tally }: Plan): Said {
  const { mould, rubber } = dossier.job;
  const kind = OPENING[mould.opening];
  const batches = pours.flatMap((p) => (p.batch ? [{ name: p.name, batch: p.batch }] : []));
  const one = batches.length === 1 ? batches[0]?.batch : undefined;
  const cups = batches.reduce((s, b) => s + b.batch.cupLossG, 0);
  return {
    title: "Rubber to mix",
    figure: tally.rubberG === null ? null : g(tally.rubberG),
    why:
      layout && batches.length > 0
        ? `For ${ml(layout.rubberMl)}, ${rubber.marginPct} % margin, ${g(cups)} left in cups.`
        : "The grams come with the master, the rubber and the way it opens.",
    parts: one ? one.parts.map((p) => ({ name: p.name, value: g(p.massG) })) : batches.map((b) => ({ name: b.name, value: g(b.batch.mixG) })),
    settings:
      kind.made === "skin"
        ? kind.pressed
          ? PUTTY_SETTINGS
          : SKIN_SETTINGS
        : [...(mould.ownBox ? [] : (["mould.wallMm"] as const)), "mould.coverMm", ...(kind.base ? (["mould.baseMm"] as const) : []), "rubber.marginPct"],
    step: "rubber",
  };
}

function plugAnswer({ pours, dossier }: Plan): Said {
  const mine = pours.flatMap((p) => (p.kind === "block" && p.plug && p.batch ? [p.batch] : []));
  return {
    title: "Rubber of the loose plugs",
    figure: mine.length > 0 ? g(mine.reduce((s, b) => s + b.mixG, 0)) : null,
    why: dossier.job.mould.plugsLast ? "Cast last, against the parts." : "Cast first, into the holes of the master.",
    parts: dossier.job.mould.plugs.map((p) => ({ name: times(p.count, p.name), value: `⌀ ${mm(p.diameterMm)}, ${mm(p.lengthMm)} long` })),
    settings: [],
    step: "opening",
  };
}

function clayAnswer({ layout }: Plan): Said {
  const bed = layout?.kind === "block" ? layout.pours.find((p) => p.clayMl > 0) : undefined;
  return {
    title: "Clay bed",
    figure: bed ? mm(bed.fromMm) : null,
    why: bed
      ? `So deep from the floor of the box, all round the master, up to the parting: ${ml(bed.clayMl)} of clay.`
      : "Clay closes what rubber must not fill.",
    parts: [],
    settings: ["mould.partingMm"],
    step: "opening",
  };
}

function boxAnswer({ layout, dossier }: Plan): Said {
  const stock = pick(dossier.materials.boxes, dossier.job.boxId);
  if (layout?.kind !== "block")
    return { title: "Board", figure: null, why: "A level board, larger than the mould all round.", parts: [], settings: [], step: "box" };
  const { box } = layout;
  const own = dossier.job.mould.ownBox !== null;
  return {
    title: "Box, inside",
    figure: box.shape === "cylindrical" ? `⌀ ${mm(box.lengthMm)}` : `${mm(box.lengthMm)} × ${mm(box.widthMm)}`,
    why: `${mm(layout.wallHeightMm)} high; ${mm(box.leastWallMm)} of rubber at the thinnest${stock ? "" : "; of what is not decided"}.`,
    parts: layout.panels.map((p) => ({ name: times(p.count, p.name), value: `${mm(p.lengthMm)} × ${mm(p.heightMm)}` })),
    settings: own ? ["mould.ownBox.lengthMm", "mould.freeboardMm"] : ["mould.wallMm", "mould.freeboardMm"],
    step: "box",
  };
}

function jacketAnswer(plan: Plan): Said {
  const jacket = plan.layout?.jacket;
  const boards = plan.strength?.boards;
  if (!jacket)
    return {
      title: "Behind the rubber",
      figure: boards ? quote(boards.pullN, "force") : null,
      why: boards ? `Pull on each of ${boards.straps.length} straps round boards of ${boards.stock.name.toLowerCase()}.` : "Nothing stands behind the rubber.",
      parts: [],
      settings: ["mould.jacketMm"],
      step: "box",
    };
  return {
    title: JACKETS[jacket.jacket].label,
    figure: g(jacket.massG.typical),
    why: `${jacket.parts === 1 ? "One part" : `${jacket.parts} parts`}, ${mm(jacket.thicknessMm)} thick. ${jacket.why}`,
    parts: [
      ...jacket.mix.map((m) => ({ name: m.name, value: g(m.massG) })),
      ...jacketPartsOf(plan).map((p) => ({ name: p.name, value: p.material })),
      ...(jacket.bolts > 0 ? [{ name: "Bolts", value: String(jacket.bolts) }] : []),
      ...(jacket.timberMm > 0 ? [{ name: "Rails", value: mm(jacket.timberMm) }] : []),
    ],
    settings: ["mould.jacketMm", ...(jacket.parts > 1 ? (["mould.boltEveryMm"] as const) : [])],
    step: "box",
  };
}

function castAnswer({ castBatch: b, cast, dossier, layers }: Plan): Said {
  const { count, marginPct } = dossier.job.cast;
  const coats = layers.filter((l) => l.coat);
  return {
    title: cast ? `${cast.name} to mix` : "Casting to mix",
    figure: b && g(b.mixG),
    why: b
      ? `${count === 1 ? "" : `${count} castings, `}${marginPct} % margin. One weighs ${g(b.wetG)} poured, ${g(b.dryG.typical)} at rest.`
      : "The mix comes with the master and what is cast.",
    parts: coats.length > 0 ? coats.map((l) => ({ name: l.name, value: g(l.batch.mixG) })) : (b?.parts ?? []).map((p) => ({ name: p.name, value: g(p.massG) })),
    settings: ["cast.count", "cast.marginPct"],
    step: "cast",
  };
}

/** What is put in, and what the liquid casting does to it: up is where it points as the mould stands to be filled. */
function insertAnswer({ inside, cast, dossier }: Plan): Said {
  const list = inside?.inserts ?? [];
  const gMl = cast ? (cast.setting.kind === "freezing" ? cast.setting.meltDensityGMl : cast.densityGMl.typical) : 0;
  const floats = list.map((i) => buoyancy(i.volumeMl, i.massG, gMl).liftN);
  const most = Math.max(0, ...floats);
  const stands = dossier.job.mould.filling ? postureOf(dossier.job.mould.filling.up) : "upright";
  const as = stands === "upright" ? "" : `, as it stands ${stands},`;
  return {
    title: "Goes inside",
    figure: inside && inside.insertsG > 0 ? g(inside.insertsG) : null,
    why:
      most > 0.01
        ? `Tie it down: in the liquid casting it is lifted${as} with up to ${quote(most, "force")}, towards what is top then.`
        : `Hang it${as} or stand it on something: it is heavier than the liquid casting, and sinks.`,
    parts: list.map((i, k) => ({
      name: times(i.count, i.label),
      value: `⌀ ${mm(i.diameterMm)}, ${mm(i.lengthMm)} long${(floats[k] ?? 0) > 0.01 ? `, lifted by ${quote(floats[k] ?? 0, "force")}` : ""}`,
    })),
    settings: [],
    step: "cast",
  };
}

/** Less than this is no bulge anybody could measure, mm. */
const LEAST_BULGE_MM = 0.1;
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What a step of the work comes to: one figure and one sentence. */
export function stepAnswer(plan: Plan, step: StepId): Pick<Answer, "title" | "figure" | "why"> | null {
  const { job } = plan.dossier;
  switch (step) {
    case "master":
      return plan.body && masterAnswer(plan);
    case "pairing": {
      if (!plan.rubber || !plan.cast) return null;
      const worst = plan.chain.links
        .flatMap((l) => l.findings.map((f) => ({ ...f, label: l.label })))
        .find((f) => f.verdict === plan.chain.verdict && f.verdict !== "sound");
      return {
        title: "How it gets on",
        figure: VERDICT_WORD[plan.chain.verdict],
        why: worst ? `${worst.label}: ${worst.reason}` : "Nothing here speaks against it.",
      };
    }
    case "opening": {
      const h = plan.strength;
      if (!h) return null;
      const { strain, known, safe } = h.stretch;
      return {
        title: "It stretches to let go",
        figure: known ? percent(strain) : "Not known",
        why: known
          ? strain > 0
            ? `It is good for ${percent(safe.low)} to ${percent(safe.typical)}, a quarter of what breaks it.`
            : "Nothing wider has to pass."
          : "Only outer sizes are known: name the undercuts.",
      };
    }
    case "prepare": {
      const most = plan.pours.filter((p) => p.lift).sort((a, b) => b.lift!.liftN - a.lift!.liftN)[0];
      const lift = most?.lift;
      const leanDeg = most?.kind === "block" ? (most.leant?.leanDeg ?? 0) : 0;
      // What lifts it straight up pulls it along a board that leans, by the sine.
      const along =
        lift && leanDeg > 0
          ? ` Leaning, up to ${quote(lift.liftN * Math.sin((leanDeg * Math.PI) / 180), "force")} of it pulls it along the board, uphill.`
          : "";
      return lift && lift.liftN > 0
        ? {
            title: "Hold the master down with",
            figure: quote(lift.liftN, "force"),
            why: `As if lifting ${g((lift.liftN / GRAVITY) * 1000)}: it floats if rubber gets under it.${along}`,
          }
        : lift
          ? { title: "Hold the master down", figure: "It stays by itself", why: "Fix it all the same, so that it cannot slide." }
          : null;
    }
    case "box":
      return plan.layout?.kind === "block" ? boxAnswer(plan) : plan.layout?.jacket ? jacketAnswer(plan) : null;
    case "rubber":
      return plan.tally.rubberG === null ? null : rubberAnswer(plan);
    case "strength": {
      const h = plan.strength;
      if (!h?.worst) return null;
      const most = h.worst.mostMm.typical;
      return {
        title: h.support === "free" ? "Its walls bulge" : "Without what stands behind it, it would bulge",
        figure: most > h.fallsMm ? "It does not stand alone" : most < LEAST_BULGE_MM ? `under ${mm(LEAST_BULGE_MM)}` : mm(most),
        why: `${mm(h.worst.mostMm.low)} to ${mm(h.worst.mostMm.high)} filled; ${mm(h.toleranceMm)} is allowed.`,
      };
    }
    case "cast":
      return plan.castBatch && castAnswer(plan);
    case "out": {
      const { rubberOutH, castOutH } = plan.tally;
      if (rubberOutH === null) return null;
      return {
        title: "Rubber, from mixing to opening",
        figure: quote(rubberOutH, "duration"),
        why: `${plan.pours.length > 1 ? `${plan.pours.length} pours` : "One pour"} at ${quote(job.shopC, "temperature")}${castOutH === null ? "" : `; a casting then takes about ${quote(castOutH, "duration")}`}.`,
      };
    }
  }
}
