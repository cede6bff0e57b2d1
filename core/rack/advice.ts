import type { FaultKey, Snapshot } from "../plan";
import { quote } from "../quantity";
import type { Range } from "../material";
import {
  believed,
  chokeFor,
  fillS,
  headToEnter,
  nextCut,
  widestDryVent,
  type Belief,
  type Believed,
  type GateQuestion,
  type Trial,
  type Ways,
} from "../gating";

/** One thing to change next time. */
export interface NextChange {
  /** Fault and means, such as "short-fill/choke": what was tried is known by it. */
  key: string;
  change: string;
  why: string;
  /** A number of that day speaks for it, not only habit: it comes before what is merely usual. */
  measured?: boolean;
}

export interface AdviceQuestion {
  faults: readonly FaultKey[];
  /** Marks on the section: where each fault sits, 0 at the floor of the filled cavity, 1 at its top. */
  marks: readonly { fault: FaultKey; height: number }[];
  frozen: Snapshot;
  /** Hours from pour to opening; null while it is shut. */
  openedH: number | null;
  /** Which cast of its mould this was, from 1; null for rubber. */
  castNumber: number | null;
  expected: Range | null;
  /** Its back was open: there was no sprue to measure. */
  openBack: boolean;
  /** The rubber's limit stands against pouring hotter. */
  atHeatLimit: boolean;
  /** Pairs of the chain of that day that were not sound, in words. */
  doubts: readonly string[];
  /** Changes tried already for the same faults that did not help, by key. */
  tried: readonly string[];
  /** Pours of the same mould whose sprue was written down, this one last: what is believed of it follows from them. */
  trials?: readonly Trial[];
  /** What its gates were sized from that day; null where they were not. */
  gates?: GateQuestion | null;
}

/** Viscosity of a tin alloy a little above where it melts, Pa·s: handbook value. */
const THIN_PA_S = 0.002;

const FACTOR_WORDS: Record<Believed, string> = {
  discharge: "its sprue runs as if it were {} as wide open as it is cut",
  vents: "its vents let out {} of the air they should",
  hand: "it is poured at {} of the pace that was reckoned",
  heat: "its thin parts stay liquid {} of the time that was reckoned",
};
/** What the pours of a mould say is most off, with how sure that is. */
function learnedWords(b: Belief): string {
  if (!b.most) return "Nothing of it is far off what was reckoned.";
  const { low, typical, high } = b[b.most];
  const pct = (v: number) => (100 * v).toFixed(0);
  return `Most likely ${FACTOR_WORDS[b.most].replace("{}", `${pct(typical)} %`)} (${pct(low)} to ${pct(high)} %).`;
}

/** What another vent would do instead of a wider sprue, where that is nearly as much. */
function ventInstead(b: Belief, last: Ways, ventMm: number): string {
  const chance = b.fills({ ...last, vents: { count: last.vents.count + 1, diameterMm: Math.max(last.vents.diameterMm, ventMm) } }).chance;
  return chance - b.fills(last).chance < WORTH ? "" : ` One vent more instead: about ${Math.round(20 * chance) * 5} %.`;
}
/** A chance that grows by less is not worth saying. */
const WORTH = 0.1;

/** Largest step of one cut: rubber cut away does not come back. */
const MOST_CUT = 1.5;
const LEAST_CUT = 1.15;
/** A section half as thick freezes in a quarter of the time: taken for the thin parts of a casting. */
const THIN_SHARE = 0.25;
const HIGH = 0.66;

const mm = (v: number) => quote(v, "length");
const pctOff = (got: number, planned: number): number => (planned > 0 ? (got / planned - 1) * 100 : 0);

/** How far the second of two parts was off its ratio to the first, %; null where it was not weighed. */
export function ratioOff(s: Snapshot): number | null {
  const [a, b] = s.parts;
  const [x, y] = s.actual?.parts ?? [];
  if (!a || !b || !x || !y || s.parts.length !== 2 || !(a.massG > 0) || !(x.gotG > 0)) return null;
  return pctOff(y.gotG / x.gotG, b.massG / a.massG);
}

/** How far the water was off its share of the powder, %. */
function waterOff(s: Snapshot): number | null {
  const planned = (re: RegExp) => s.parts.find((c) => re.test(c.name))?.massG ?? 0;
  const got = (re: RegExp) => s.actual?.parts.find((c) => re.test(c.name))?.gotG ?? 0;
  const dry = /powder|dry mix/i;
  if (!(planned(dry) > 0) || !(got(dry) > 0) || !(planned(/^water/i) > 0)) return null;
  return pctOff(got(/^water/i) / got(dry), planned(/^water/i) / planned(dry));
}

const RULES: Record<FaultKey, (q: AdviceQuestion) => NextChange[]> = {
  "short-fill": (q) => {
    const { frozen: s } = q;
    const out: NextChange[] = [];
    const add = (means: string, change: string, why: string, measured = false) => out.push({ key: `short-fill/${means}`, change, why, measured });
    const metal = s.castFamily === "metal";
    const head = s.headMm !== null && s.headMm > 0 ? s.headMm : 30;
    const rho = s.fillGMl ?? 7;
    const cut = s.actual;
    const at = q.marks.filter((m) => m.fault === "short-fill").map((m) => m.height);
    // A vent is never advised narrower than one that is there.
    const dry = widestDryVent(head, rho);
    const had = cut?.ventMm ?? 0;
    const ventMm = Math.max(had, Math.min(1.5, dry));
    const wider = had === 0 || ventMm > had + 0.05;
    const high = at.length > 0 && at.every((h) => h >= HIGH);
    if (high)
      add(
        "vent",
        metal ? `Cut a vent at the mark, ${mm(ventMm)} wide.` : "Cut a vent at the mark, as wide as a matchstick is thick.",
        metal
          ? `The gap sits at the top, where air stays. A vent up to ${mm(Math.max(dry, had))} lets air out and stays dry under ${mm(head)} of head, since the alloy does not wet it.`
          : "The gap sits at the top of the cavity, where air stays behind.",
      );
    if (metal && cut?.sprueMm) {
      const seconds = fillS(s.volumeMl, cut.sprueMm, head);
      const thin = (s.freezesH ?? s.demouldH.typical / 2) * 3600 * THIN_SHARE;
      const reckoned = Math.min(cut.sprueMm * MOST_CUT, Math.max(cut.sprueMm * LEAST_CUT, chokeFor(s.volumeMl, thin / 2, head)));
      const trials = q.trials ?? [];
      const vents = { count: cut.vents, diameterMm: cut.ventMm ?? 0 };
      const belief = believed(trials, {
        volumeMl: s.volumeMl,
        liquidS: thin / 2,
        liquid: { densityKgM3: 1000 * rho, viscosityPaS: q.gates?.liquid.viscosityPaS ?? THIN_PA_S },
        headMm: head,
        channelMm: q.gates?.channelMm ?? head / 2,
        vents,
      });
      const learned = nextCut(belief, { chokeMm: cut.sprueMm * LEAST_CUT, vents }, cut.sprueMm * MOST_CUT);
      // One pour, or two, may have failed for anything; from the third on the mould speaks for itself.
      const taught = trials.length >= 3;
      const wanted = taught ? learned.chokeMm : reckoned;
      if (seconds > thin / 2 || taught)
        add(
          "choke",
          `Open the sprue, where it is narrowest, from ${mm(cut.sprueMm)} to ${mm(wanted)}.`,
          taught
            ? `After ${trials.length} pours through ${mm(wanted)} the chance of a full one is about ${Math.round(20 * learned.chance) * 5} %. ${learnedWords(belief)}${ventInstead(belief, { chokeMm: cut.sprueMm, vents }, ventMm)}`
            : `Through ${mm(cut.sprueMm)} it takes about ${quote(seconds / 3600, "duration")} to fill, and thin sections freeze in about ${quote(thin / 3600, "duration")}.`,
          true,
        );
      else
        add(
          "temperature",
          q.atHeatLimit
            ? "Warm the mould before the first pour until it is hand-hot. Pour no hotter: its rubber is at its limit already."
            : "Warm the mould before the first pour until it is hand-hot, and pour at the top of the range your rubber bears.",
          `The sprue of ${mm(cut.sprueMm)} fills it in about ${quote(seconds / 3600, "duration")}, soon enough: it froze at the front, not in the sprue.`,
        );
    } else if (q.openBack)
      add(
        "fill",
        "Mix a tenth more, and fill it until it stands at the rim; tap it down and top it up.",
        "Filled through its open back it lacks only what was not poured.",
      );
    else if (cut?.sprueMm)
      add(
        "choke",
        `Open the sprue, where it is narrowest, from ${mm(cut.sprueMm)} to ${mm(cut.sprueMm * 1.25)}.`,
        "What flows slowly runs badly through a narrow place: a quarter more width passes about two and a half times as much.",
      );
    else
      add(
        "choke",
        "Measure the sprue where it is narrowest, write it down with the next pour, and open it by a fifth.",
        "Its width was not written down, so the time it takes to fill cannot be worked out.",
      );
    if (!high && !q.openBack)
      add(
        "vent",
        metal
          ? wider
            ? `Add a vent at each high point, ${mm(ventMm)} wide, at most ${mm(Math.max(dry, had))}.`
            : `Add one more vent of ${mm(had)} at each high point that has none.`
          : "Add a vent at each high point and bring it up beside the sprue.",
        metal ? `A vent of ${mm(dry)} is the widest that stays dry under ${mm(head)} of head.` : "Air that cannot leave keeps the mix out.",
      );
    if (metal) {
      const finest = 1;
      add(
        "head",
        `Raise the pouring cup: ${mm(Math.max(head * 1.5, headToEnter(finest, rho)))} above the finest detail.`,
        `A detail ${mm(finest)} wide takes ${mm(headToEnter(finest, rho))} of head to fill, for the alloy shies from narrow places.`,
      );
      if (!out.some((a) => a.key.endsWith("/temperature")))
        add(
          "temperature",
          "Warm the mould before the first pour, and do not let the ladle cool on the way.",
          "The first pours of a day meet a cold mould and freeze early.",
        );
    } else
      add(
        "flow",
        `Pour in one place, slowly, with the mould tilted towards ${q.openBack ? "it" : "the sprue"}; tap from below.`,
        "Two fronts that meet trap what is between them.",
      );
    return out;
  },
  bubbles: (q) => {
    const at = q.marks.filter((m) => m.fault === "bubbles").map((m) => m.height);
    const high = at.some((h) => h >= HIGH);
    const low = at.some((h) => h < HIGH);
    const list: NextChange[] = [];
    if (high)
      list.push({
        key: "bubbles/tilt",
        change: "Tilt the mould while you fill it, the marked place uphill, and lay it level when it is full.",
        why: "Bubbles rise and stay under faces that look down; tilted, they find the way out.",
      });
    if (low || !high)
      list.push({
        key: "bubbles/detail-coat",
        change:
          q.frozen.kind === "rubber"
            ? "Brush a thin first coat into the detail before you pour."
            : "Brush or pour a thin first layer into the detail, then fill.",
        why: "Pinholes on the fine side were never pushed out of it: a brush reaches what a stream does not.",
      });
    if (q.frozen.kind === "rubber")
      list.push({
        key: "bubbles/degas",
        change: "Put the mixed rubber under vacuum, or pour it from high up in a thin stream.",
        why: "Stirring beats air in; a thread of rubber stretches the bubbles until they break.",
      });
    else
      list.push({
        key: "bubbles/vibrate",
        change: "Tap or vibrate from below for two minutes more, and never squeeze the sides.",
        why: "Small bubbles need time to rise through a thick mix.",
      });
    const dry = waterOff(q.frozen);
    if (dry !== null && dry < -2)
      list.push({
        key: "bubbles/water",
        change: "Weigh the water closer.",
        why: `There was ${Math.round(-dry)} % less water than planned: a stiff mix holds its air.`,
        measured: true,
      });
    return list;
  },
  flash: (q) => {
    const pa = (q.frozen.headMm ?? 0) * (q.frozen.fillGMl ?? 1) * 9.80665;
    return [
      {
        key: "flash/straps",
        change: "Add a strap or a board each side, snug and no more.",
        why: pa > 0 ? `The fill presses with ${quote(pa, "pressure")} at the bottom of the seam.` : "The fill's weight opens the seam.",
      },
      {
        key: "flash/keys",
        change: "Cut deeper or more keys into the next mould, and clean the seam before it is closed.",
        why: "Halves that can slide, or a crumb between them, leave a gap.",
      },
    ];
  },
  sticky: (q) => {
    const list: NextChange[] = [];
    const off = ratioOff(q.frozen);
    if (off !== null && Math.abs(off) > 2)
      list.push({
        key: "sticky/ratio",
        change: "Weigh both parts to within one percent, on a fine enough scale.",
        why: `The second part was ${Math.abs(off).toFixed(1)} % ${off < 0 ? "short" : "over"} for what was in the cup.`,
        measured: true,
      });
    for (const d of q.doubts.slice(0, 2))
      list.push({
        key: "sticky/chain",
        change: `Make a patch test: ${d}.`,
        why: "That pair was not known to be sound when it was poured, and silicone that stays slimy has usually met something that stops its cure.",
      });
    const past = q.frozen.lots.find((l) => l.past);
    if (past)
      list.push({
        key: "sticky/age",
        change: "Open a fresh kit; or mix a spoonful of the old one and wait its cure before the next.",
        why: `${past.name}${past.batch ? `, number ${past.batch},` : ""} was past its date that day: catalysts take up damp, and bases age.`,
        measured: true,
      });
    else if (q.frozen.rubberFamily !== null)
      list.push({
        key: "sticky/age",
        change: "Look when its tubs were opened and until when they are good; mix a spoonful and wait its cure before the next.",
        why: "A kit that was opened weeks ago cures badly though every gram was right: catalysts take up damp, and bases age.",
      });
    const cold = q.frozen.actual?.shopC ?? q.frozen.shopC;
    if (cold < 18)
      list.push({
        key: "sticky/warm",
        change: "Wait longer, or warm the room.",
        why: `At ${quote(cold, "temperature")} it cures slowly: touch the test cup before you open it.`,
      });
    list.push({
      key: "sticky/stir",
      change: "Scrape sides and bottom, change into a second container, and stir again.",
      why: "What clings to the first cup was not mixed, and pours out last.",
    });
    return list;
  },
  tear: (q) => {
    const s = q.frozen;
    const list: NextChange[] = [];
    if (s.stretch !== null && s.stretchLimit !== null && s.stretch > 0.8 * s.stretchLimit)
      list.push({
        key: "tear/stretch",
        change: "Cut a relief where it stretches most, or pour the next mould in a softer, longer rubber.",
        why: `The opening stretches ${Math.round(s.stretch * 100)} %, and this rubber should be asked for ${Math.round(s.stretchLimit * 100)} % at most, cast after cast.`,
        measured: true,
      });
    if (q.castNumber !== null && q.expected && q.castNumber > q.expected.low)
      list.push({
        key: "tear/age",
        change: "Make its successor while this one still casts.",
        why: `It was cast number ${q.castNumber}; moulds of its kind last ${q.expected.low} to ${q.expected.high}.`,
      });
    list.push({ key: "tear/release", change: "Fresh release, and open it from an edge, slowly.", why: "A tear starts at a nick, and where it sticks." });
    return list;
  },
  bulge: (q) => {
    const s = q.frozen;
    return s.bulgeMm !== null && s.bulgeLimitMm !== null && s.bulgeMm > 0.5 * s.bulgeLimitMm
      ? [
          {
            key: "bulge/boards",
            change: "Stand boards behind the long walls with a strap at a third of the height.",
            why: `The walls give ${mm(s.bulgeMm)} under this fill, and ${mm(s.bulgeLimitMm)} is what you allow.`,
            measured: true,
          },
          {
            key: "bulge/wall",
            change: `Pour the next mould with walls of about ${mm(s.wallMm * Math.cbrt(s.bulgeMm / Math.max(0.05, 0.5 * s.bulgeLimitMm)))} instead of ${mm(s.wallMm)}.`,
            why: "A wall's give falls with about the third power of its thickness.",
          },
        ]
      : [
          {
            key: "bulge/straps",
            change: "Loosen the straps, and set the mould on a flat board.",
            why: "The walls are stiff enough for this fill: what pushed them is outside.",
          },
        ];
  },
  crack: (q) => {
    const s = q.frozen;
    const list: NextChange[] = [];
    if (s.stretch !== null && s.stretch > 0.1)
      list.push({
        key: "crack/relief",
        change: "Cut a relief so that the mould opens without bending the casting.",
        why: `The rubber has to stretch ${Math.round(s.stretch * 100)} %, and pulls on the casting as it does.`,
        measured: true,
      });
    const wet = waterOff(s);
    if (wet !== null && wet > 2)
      list.push({
        key: "crack/water",
        change: "Weigh the water closer.",
        why: `There was ${Math.round(wet)} % more water than planned: it comes out weaker.`,
        measured: true,
      });
    list.push({ key: "crack/support", change: "Lift it by its thickest part, on a board as long as it is.", why: "Fresh castings bear little bending." });
    return list;
  },
  soft: (q) => {
    const s = q.frozen;
    const list: NextChange[] = [];
    const wet = waterOff(s);
    if (wet !== null && wet > 2)
      list.push({ key: "soft/water", change: "Weigh the water closer.", why: `There was ${Math.round(wet)} % more water than planned.`, measured: true });
    const off = s.castFamily === "resin" ? ratioOff(s) : null;
    if (off !== null && Math.abs(off) > 2)
      list.push({
        key: "soft/ratio",
        change: "Weigh both parts to within one percent.",
        why: `The second part was ${Math.abs(off).toFixed(1)} % ${off < 0 ? "short" : "over"}.`,
        measured: true,
      });
    const cold = s.actual?.shopC ?? s.shopC;
    if (cold < 16)
      list.push({ key: "soft/warm", change: "Keep it warmer, or leave it longer.", why: `At ${quote(cold, "temperature")} it gains strength slowly.` });
    list.push({
      key: "soft/dry",
      change: "Use fresh, dry material, and cover a cement casting so that it does not dry out.",
      why: "Old powder has drunk from the air; cement that dries stops hardening.",
    });
    return list;
  },
  detail: (q) => [
    ...(q.castNumber !== null && q.expected && q.castNumber > q.expected.low
      ? [
          {
            key: "detail/age",
            change: "Look at the mould itself under a lamp; if the detail has gone, make its successor.",
            why: `It was cast number ${q.castNumber}; moulds of its kind last ${q.expected.low} to ${q.expected.high}.`,
          },
        ]
      : []),
    { key: "detail/release", change: "Half as much release, brushed out thin.", why: "A film of release fills fine lines first." },
    { key: "detail/first-layer", change: "Brush a thin first layer into the detail.", why: "It wets what a stream runs over." },
  ],
  gulp: (q) => [
    {
      key: "gulp/vent",
      change: q.openBack
        ? "Pour slower, in one place, and tilt the mould towards it."
        : "Give the air a way of its own: a vent at the high point furthest from the sprue.",
      why: "It gulps where air has to leave by the way the mix comes in.",
    },
    {
      key: "gulp/stream",
      change: "Pour in a thin, steady stream down one side, and do not let the cup run dry.",
      why: "A stream that breaks takes air in with it.",
    },
  ],
  overfilled: () => [
    {
      key: "overfilled/level",
      change: "Mark the line inside the rim, level the mould, and stop under it; strike it off before it sets.",
      why: "What stands over the rim hangs on to it when it is opened.",
    },
  ],
  seam: () => [
    {
      key: "seam/keys",
      change: "Band the halves before you fill them, and check with a finger that the keys have caught.",
      why: "A step is two halves that did not sit where their keys want them.",
    },
    { key: "seam/clean", change: "Pick every crumb out of the seam and its keys first.", why: "A crumb of a millimetre is a step of a millimetre." },
  ],
  stuck: (q) => [
    {
      key: "stuck/release",
      change:
        q.frozen.kind === "rubber"
          ? "Seal and release the master twice, into every corner, and let it dry."
          : "Release it thinly before every casting, and loosen each edge before you pull.",
      why: "Where nothing lies between, some rubbers and fills grow on to what they touch.",
    },
    {
      key: "stuck/relief",
      change: "Cut a relief where it holds, no longer than it needs.",
      why: q.frozen.stretch !== null ? `The opening has to stretch ${Math.round(q.frozen.stretch * 100)} %.` : "What is undercut has to be given room.",
    },
  ],
  "one-side": (q) => {
    const off = ratioOff(q.frozen);
    return [
      ...(off !== null && Math.abs(off) > 2
        ? [
            {
              key: "one-side/ratio",
              change: "Weigh both parts to within one percent.",
              why: `The second part was ${Math.abs(off).toFixed(1)} % ${off < 0 ? "short" : "over"}.`,
              measured: true,
            },
          ]
        : []),
      ...q.doubts.slice(0, 1).map((d) => ({
        key: "one-side/chain",
        change: `Make a patch test: ${d}.`,
        why: "Soft where it touches one thing only points at that thing.",
        measured: true,
      })),
      {
        key: "one-side/stir",
        change: "Change into a second container and stir again.",
        why: "What clung to the first cup was not mixed, and pours out last: on one side.",
      },
    ];
  },
  colour: () => [
    {
      key: "colour/clean",
      change: "Wash the mould, dry it, and use a release without oil.",
      why: "Stains come from release, from the last colour, or from what the mould was washed with.",
    },
    { key: "colour/mix", change: "Stir the pigment into the water first, and weigh it.", why: "Streaks are pigment that was not mixed." },
  ],
};

/** Opened before this share of the least it was to wait, the clock is what is to blame, whatever else is ticked. */
const FAR_TOO_SOON = 0.5;

const TIME_TOUCHES: readonly FaultKey[] = ["crack", "soft", "sticky", "one-side", "stuck", "tear", "bulge", "detail", "bubbles"];

/** What the clock says: it was opened too soon. */
function tooSoon(q: AdviceQuestion): { first: NextChange[]; usual: NextChange[] } {
  const s = q.frozen;
  if (q.openedH === null || q.openedH >= s.demouldH.typical) return { first: [], usual: [] };
  // Only what time can touch: no waiting fills a gap.
  const fault = TIME_TOUCHES.find((f) => q.faults.includes(f));
  const far = q.openedH < FAR_TOO_SOON * s.demouldH.low;
  if (!fault || (!far && fault !== "crack" && fault !== "soft")) return { first: [], usual: [] };
  const wait: NextChange = {
    key: `${fault}/wait`,
    change: `Leave it ${quote(Math.max(s.demouldH.typical, q.openedH * 1.5), "duration")} before you open it.`,
    why: `It was opened after ${quote(q.openedH, "duration")}; ${quote(s.demouldH.low, "duration")} to ${quote(s.demouldH.high, "duration")} was reckoned.`,
    measured: true,
  };
  return far ? { first: [wait], usual: [] } : { first: [], usual: [wait] };
}

/**
 * What to change next time, from the faults and the numbers frozen with the pour: first what the clock says, then what a number of
 * that day speaks for, then what is usual; what was tried and did not help comes last. Evidence outranks the order of ticking.
 */
export function adviseNext(q: AdviceQuestion): NextChange[] {
  const { first, usual } = tooSoon(q);
  const rules = [...usual, ...q.faults.flatMap((f) => RULES[f](q))];
  const all = [...first, ...rules.filter((a) => a.measured), ...rules.filter((a) => !a.measured)];
  const seen = new Set<string>();
  const once = all.filter((a) => !seen.has(a.key) && seen.add(a.key));
  return [...once.filter((a) => !q.tried.includes(a.key)), ...once.filter((a) => q.tried.includes(a.key))];
}

/** Whether a change helped: the fault it was for is gone, or not. Null where the pour has no outcome yet, or the change names no fault. */
export function didHelp(changeKey: string | null, next: { outcome: string | null; faults: readonly FaultKey[] }): boolean | null {
  const [fault, means] = changeKey?.split("/") ?? [];
  if (!fault || !means || next.outcome === null) return null;
  return !next.faults.some((f) => f === fault);
}

/**
 * How sure that is, in words. One good one after one failure is one good one.
 * @param without castings in a row since the change without its fault; @param withFault castings before it that had it
 */
export function howSure(without: number, withFault: number): string {
  // As if drawn from one bag: how often all the good ones would come after all the bad ones by chance.
  const n = without + withFault;
  let chance = 1;
  for (let i = 0; i < without; i++) chance *= (without - i) / (n - i);
  if (without === 0) return "";
  const ratio = `${withFault} with the fault before it, ${without} without since`;
  return chance > 0.2
    ? `${ratio}: ${without === 1 ? "one good one is one good one" : "too few to tell it from luck"}.`
    : chance > 0.05
      ? `${ratio}: it looks like it, and one in ${Math.round(1 / chance)} would be luck.`
      : `${ratio}: that is hardly luck.`;
}
