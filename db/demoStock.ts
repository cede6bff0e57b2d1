import { LotWords, Pack, type MoveKind } from "../core/stock";
import { Order, Project } from "../core/works";
import type { Db } from "./open";
import { insertMoves, putLot, putPack } from "./stock";
import { orderShelf, projectShelf } from "./works";

const DAY = 86_400_000;

type Tubs = readonly (readonly [name: string, g: number])[];
const AB = (g: number): Tubs => [
  ["Part A", g],
  ["Part B", g],
];

/** What Perigee Yard buys its materials in. */
const PACKS: readonly { id: string; materialId: string; name: string; tubs: Tubs; price: number; from: string }[] = [
  { id: "demo-pack-dome-2", materialId: "own-dome-25", name: "2 kg kit", tubs: AB(1000), price: 49, from: "Harbour Supplies" },
  { id: "demo-pack-dome-10", materialId: "own-dome-25", name: "10 kg kit", tubs: AB(5000), price: 205, from: "Harbour Supplies" },
  { id: "demo-pack-medium-1", materialId: "rubber-platinum-medium-25", name: "1 kg kit", tubs: AB(500), price: 31, from: "Harbour Supplies" },
  {
    id: "demo-pack-ember-1",
    materialId: "own-ember-30",
    name: "1.1 kg kit",
    tubs: [
      ["Base", 1000],
      ["Catalyst", 100],
    ],
    price: 45,
    from: "Foundry counter",
  },
  { id: "demo-pack-brush-1", materialId: "rubber-platinum-brush-30", name: "1 kg kit", tubs: AB(500), price: 34, from: "Harbour Supplies" },
  {
    id: "demo-pack-firm-5",
    materialId: "rubber-platinum-firm-40",
    name: "5.5 kg pail",
    tubs: [
      ["Part A", 5000],
      ["Part B", 500],
    ],
    price: 138,
    from: "Harbour Supplies",
  },
  { id: "demo-pack-plaster-25", materialId: "cast-plaster", name: "25 kg bag", tubs: [["Powder", 25_000]], price: 19, from: "Builders' yard" },
  { id: "demo-pack-concrete-20", materialId: "cast-concrete", name: "20 kg bag", tubs: [["Dry mix", 20_000]], price: 8.5, from: "Builders' yard" },
  { id: "demo-pack-pewter-1", materialId: "own-comet-pewter", name: "1 kg of ingots", tubs: [["Alloy", 1000]], price: 52, from: "Foundry counter" },
  {
    id: "demo-pack-urethane-1",
    materialId: "cast-fast-urethane",
    name: "900 g kit",
    tubs: [
      ["Part A", 450],
      ["Part B", 450],
    ],
    price: 24,
    from: "Harbour Supplies",
  },
  {
    id: "demo-pack-chocolate-1",
    materialId: "cast-dark-chocolate",
    name: "1 kg of buttons",
    tubs: [["Tempered chocolate", 1000]],
    price: 14,
    from: "The grocer",
  },
];

/** What stands in their cupboard: when it came, when it was opened, and what is left. */
const LOTS: readonly {
  id: string;
  packId: string;
  batch: string;
  place: string;
  boughtDays: number;
  openedDays: number | null;
  goodDays: number | null;
  leftG: readonly number[];
}[] = [
  {
    id: "demo-lot-dome-1",
    packId: "demo-pack-dome-2",
    batch: "D-2207",
    place: "Shelf 1, left",
    boughtDays: 120,
    openedDays: 70,
    goodDays: 200,
    leftG: [310, 335],
  },
  {
    id: "demo-lot-dome-2",
    packId: "demo-pack-dome-2",
    batch: "D-2231",
    place: "Shelf 1, left",
    boughtDays: 40,
    openedDays: 18,
    goodDays: 280,
    leftG: [640, 655],
  },
  {
    id: "demo-lot-dome-3",
    packId: "demo-pack-dome-2",
    batch: "D-2231",
    place: "Shelf 1, back",
    boughtDays: 40,
    openedDays: null,
    goodDays: 280,
    leftG: [1000, 1000],
  },
  {
    id: "demo-lot-ember-1",
    packId: "demo-pack-ember-1",
    batch: "E-0914",
    place: "Metal cupboard",
    boughtDays: 150,
    openedDays: 96,
    goodDays: 60,
    leftG: [420, 38],
  },
  {
    id: "demo-lot-medium-1",
    packId: "demo-pack-medium-1",
    batch: "M-118",
    place: "Shelf 1, right",
    boughtDays: 60,
    openedDays: 30,
    goodDays: 240,
    leftG: [210, 224],
  },
  {
    id: "demo-lot-firm-1",
    packId: "demo-pack-firm-5",
    batch: "F-77",
    place: "Under the bench",
    boughtDays: 90,
    openedDays: 60,
    goodDays: 150,
    leftG: [1850, 190],
  },
  { id: "demo-lot-plaster-1", packId: "demo-pack-plaster-25", batch: "", place: "Dry bin", boughtDays: 50, openedDays: 45, goodDays: 40, leftG: [14_200] },
  { id: "demo-lot-concrete-1", packId: "demo-pack-concrete-20", batch: "", place: "Dry bin", boughtDays: 35, openedDays: 20, goodDays: 90, leftG: [6400] },
  {
    id: "demo-lot-pewter-1",
    packId: "demo-pack-pewter-1",
    batch: "P-3",
    place: "Metal cupboard",
    boughtDays: 80,
    openedDays: 60,
    goodDays: null,
    leftG: [610],
  },
  {
    id: "demo-lot-urethane-1",
    packId: "demo-pack-urethane-1",
    batch: "U-52",
    place: "Shelf 2",
    boughtDays: 100,
    openedDays: 75,
    goodDays: 30,
    leftG: [180, 176],
  },
];
const LIFE: Record<string, number | null> = {
  "own-comet-pewter": null,
  "own-ember-30": 90,
  "cast-plaster": 120,
  "cast-concrete": 60,
  "cast-fast-urethane": 60,
};

/** The made-up workshop's cupboard, one order and one edition. */
export function fillStock(db: Db, now: number, castings: readonly string[]): void {
  for (const { id, tubs, ...p } of PACKS)
    putPack(db, id, Pack.parse({ ...p, parts: tubs.map(([name, massG]) => ({ name, massG, volumeMl: null })) }), now - 40 * DAY);
  for (const l of LOTS) {
    const pack = PACKS.find((p) => p.id === l.packId)!;
    const at = now - l.boughtDays * DAY;
    const opened = l.openedDays === null ? null : now - l.openedDays * DAY;
    putLot(
      db,
      l.id,
      LotWords.parse({
        materialId: pack.materialId,
        name: pack.name,
        batch: l.batch,
        place: l.place,
        price: pack.price,
        boughtAt: at,
        openedAt: opened,
        goodUntil: l.goodDays === null ? null : now + l.goodDays * DAY,
        openedDays: pack.materialId in LIFE ? LIFE[pack.materialId] : 180,
        parts: pack.tubs.map(([name, boughtG]) => ({ name, boughtG })),
      }),
      at,
    );
    const move = (part: number, kind: MoveKind, g: number, when: number) => ({
      id: `${l.id}-${kind}-${part}`,
      lotId: l.id,
      part,
      at: when,
      kind,
      g,
      jobId: null,
      pourId: null,
    });
    insertMoves(
      db,
      pack.tubs.flatMap(([, g], part) => [
        move(part, "bought", g, at),
        ...(opened !== null && l.leftG[part]! < g ? [move(part, "drawn", l.leftG[part]! - g, opened + DAY)] : []),
      ]),
    );
  }
  orderShelf.write(
    db,
    "demo-order-opening-night",
    Order.parse({
      format: 1,
      name: "Opening night at the observatory shop",
      dueAt: now + 8 * DAY,
      note: "Wrapped in twos.",
      lines: [
        { jobId: "demo-moon-phase-tile", good: 16, sent: 0 },
        { jobId: "demo-comet-drawer-pull", good: 6, sent: 0 },
      ],
      price: 420,
    }),
    0,
    now - 2 * DAY,
  );
  projectShelf.write(
    db,
    "demo-work-reading-corner",
    Project.parse({
      format: 1,
      name: "Reading corner, an edition of 12",
      note: "The lamp's foot with one tile let into the wall behind it.",
      parts: [
        { jobId: "demo-crater-lamp-base", name: "Foot", count: 1, joint: "threaded rod up the middle, felt below" },
        { jobId: "demo-moon-phase-tile", name: "Waxing gibbous", count: 1, joint: "two dabs of tile cement" },
      ],
      edition: 12,
      castings: castings.map((pourId, i) => ({ number: i + 1, pourId, to: i === 0 ? "the shop's own wall" : "", at: i === 0 ? now - DAY : null })),
    }),
    0,
    now - DAY,
  );
}
