import * as z from "zod";
import { define, fault, positive, type Operation } from "../operation";
import { AIMS, cover } from "./cover";
import { fillFrom } from "./leftovers";
import { ageOf, together } from "./lot";
import { type Catalogue, type Material } from "../material";
import { shopping, standOfAll, type KeptPack } from "./needs";
import { Pack } from "./pack";
import type { Lot } from "./lot";

const gramsOf = z.array(z.number().min(0).max(1_000_000)).min(1).max(6);
const text = z.string().min(1).max(80);

const materialsIn = (c: Catalogue): Material[] => [...c.rubbers, ...c.casts, ...c.surfaces, ...c.releases, ...c.boxes, ...c.sundries];

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "batch.packs",
    "What to open and what to buy so that a need is covered: the cheapest way, or what leaves the least over; exact",
    z
      .strictObject({
        needG: gramsOf.describe("of each part, as one mixing takes them; a single number in a list for what has one part"),
        here: z
          .array(
            z.strictObject({
              id: text,
              leftG: gramsOf,
              opened: z.boolean().default(false),
              daysLeft: z.number().nullable().default(null).describe("until it is past its date; below 0 it is left alone"),
              family: text.default("one"),
            }),
          )
          .max(60)
          .default([])
          .describe("lots in the cupboard, oldest first"),
        packs: z
          .array(z.strictObject({ id: text, sizeG: gramsOf, price: z.number().min(0).max(1_000_000).default(0), family: text.default("one") }))
          .max(20)
          .default([])
          .describe("what can be bought"),
        aim: z.enum(AIMS).default("cheapest"),
      })
      .describe("a kit's parts stay together; families never mix"),
    z.object({
      covered: z.boolean(),
      open: z.array(z.object({ id: z.string() })),
      buy: z.array(z.object({ id: z.string(), count: z.number() })),
      price: z.number(),
      opened: z.number(),
      leftG: z.number(),
      family: z.string().nullable(),
    }),
    ({ needG, here, packs, aim }) => {
      const odd = [...here.map((h) => h.leftG), ...packs.map((p) => p.sizeG)].findIndex((list) => list.length !== needG.length);
      if (odd >= 0)
        return fault(odd < here.length ? `here.${odd}.leftG` : `packs.${odd - here.length}.sizeG`, `needs ${needG.length} numbers, one for each part of needG`);
      const whole = needG.reduce((a, b) => a + b, 0);
      const share = needG.map((g) => (whole > 0 ? g / whole : 0));
      const kit = (g: readonly number[]) => (g.filter((v) => v > 0).length > 1 ? together(g, share) : g);
      const found = cover(
        needG,
        [
          ...here
            .filter((h) => h.daysLeft === null || h.daysLeft >= 0)
            .map((h) => ({ key: `here ${h.id}`, bringsG: kit(h.leftG), price: 0, opens: !h.opened, most: 1, family: h.family })),
          ...packs.map((p) => ({ key: `pack ${p.id}`, bringsG: kit(p.sizeG), price: p.price, opens: true, most: null, family: p.family })),
        ],
        aim,
      );
      const of = (kind: string) =>
        (found?.picks ?? []).filter((p) => p.key.startsWith(`${kind} `)).map((p) => ({ id: p.key.slice(kind.length + 1), count: p.count }));
      return {
        covered: found !== null,
        open: of("here").map(({ id }) => ({ id })),
        buy: of("pack"),
        price: found?.price ?? 0,
        opened: found?.opened ?? 0,
        leftG: found?.leftG ?? 0,
        family: found?.family ?? null,
      };
    },
  ),

  define(
    "batch.leftovers",
    "Which moulds that stand ready a rest is poured into, so that the least of it is thrown away; exact",
    z.strictObject({
      restG: positive("restG").max(1_000_000),
      lifeMin: positive("lifeMin").max(100_000).nullable().default(null).describe("until it no longer runs, minutes"),
      moulds: z.array(z.strictObject({ id: text, needG: positive("needG").max(1_000_000), pourMin: z.number().min(0).max(10_000).default(1) })).max(60),
    }),
    z.object({
      picks: z.array(z.string()),
      usedG: z.number(),
      restG: z.number(),
      pourMin: z.number(),
      nearest: z.object({ id: z.string(), shortG: z.number() }).nullable(),
    }),
    ({ restG, lifeMin, moulds }) => {
      const f = fillFrom(
        restG,
        lifeMin,
        moulds.map(({ id, ...m }) => ({ key: id, name: id, ...m })),
      );
      return { ...f, nearest: f.nearest && { id: f.nearest.key, shortG: f.nearest.shortG } };
    },
  ),

  define(
    "stock.needs",
    "What jobs still take of each material against what is in the cupboard, and what to open and buy for it",
    z.strictObject({
      at: z.number().describe("now, ms since 1970"),
      needs: z
        .array(
          z.strictObject({
            materialId: text,
            job: z.string().max(120),
            parts: z
              .array(z.strictObject({ name: text, g: z.number().min(0).max(1_000_000) }))
              .min(1)
              .max(6),
          }),
        )
        .max(500),
      lots: z
        .array(
          z.strictObject({
            id: text,
            materialId: text,
            boughtAt: z.number().default(0),
            openedAt: z.number().nullable().default(null),
            goodUntil: z.number().nullable().default(null),
            openedDays: z.number().min(0).nullable().default(null),
            parts: z
              .array(z.strictObject({ name: text, leftG: z.number() }))
              .min(1)
              .max(6),
          }),
        )
        .max(2000)
        .default([]),
      packs: z.array(Pack).max(200).default([]),
      aim: z.enum(AIMS).default("cheapest"),
    }),
    z.object({
      materials: z.array(
        z.object({
          materialId: z.string(),
          parts: z.array(z.object({ name: z.string(), wantedG: z.number(), goodG: z.number(), pastG: z.number(), shortG: z.number() })),
          open: z.array(z.string()),
          buy: z.array(z.object({ pack: z.string(), count: z.number(), price: z.number().nullable() })),
          leftG: z.number(),
        }),
      ),
      past: z.array(z.string()),
      price: z.number().nullable(),
    }),
    (i, catalogue) => {
      const materials = materialsIn(catalogue);
      const unknown = i.needs.findIndex((n) => !materials.some((m) => m.id === n.materialId));
      if (unknown >= 0) return fault(`needs.${unknown}.materialId`, `"${i.needs[unknown]!.materialId}" is no material here`);
      const lots = i.lots.map(({ parts, ...l }): Lot => ({
        ...l,
        name: l.id,
        batch: "",
        place: "",
        note: "",
        price: null,
        endedAt: null,
        parts: parts.map((p) => ({ name: p.name, boughtG: Math.max(1e-4, p.leftG), tareG: null })),
        leftG: parts.map((p) => p.leftG),
      }));
      const packs = i.packs.map((p, k): KeptPack => ({ ...p, id: `pack-${k}` }));
      const needs = i.needs.map((n) => ({ materialId: n.materialId, jobId: n.job, jobName: n.job, what: "", parts: n.parts }));
      const stands = standOfAll(materials, lots, packs, needs, i.at, i.aim);
      return {
        materials: stands.map(({ balance: b, opening: o }) => ({
          materialId: b.materialId,
          parts: b.tubs.map((name, k) => ({ name, wantedG: b.wantedG[k]!, goodG: b.goodG[k]!, pastG: b.pastG[k]!, shortG: b.shortG[k]! })),
          open: (o?.open ?? []).flatMap((l) => (l.lotId === null ? [] : [l.lotId])),
          buy: (o?.buy ?? []).map((l) => ({ pack: l.name, count: l.count, price: l.price })),
          leftG: o?.leftG ?? 0,
        })),
        past: lots.filter((l) => ageOf(l, i.at).age === "past").map((l) => l.id),
        price: shopping(stands).price,
      };
    },
  ),
];
