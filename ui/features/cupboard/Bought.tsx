"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useForm, useWatch } from "react-hook-form";
import * as z from "zod";
import type { StockView } from "@/contract/stock";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { Form, FormFault, PickInput, QuantityInput, TextInput } from "../../form/Form";
import { Dialog } from "../../kit/Dialog";
import { useUnits } from "../../kit/units";
import { dayEnd } from "../../kit/zone";
import { dayOf } from "./words";

const amount = z.number().nullable();
const Bought = z
  .object({
    packId: z.string().nullable(),
    materialId: z.string().nullable(),
    grams: z.array(amount),
    count: z.number().nullable(),
    price: amount,
    batch: z.string(),
    place: z.string(),
    bought: z.string(),
    good: z.string(),
  })
  .refine((b) => b.packId !== null || b.materialId !== null, { path: ["materialId"], message: "say what it is" });

/** Puts what was bought into the cupboard: by a pack that is known, or by its tubs. */
export function BoughtDialog({
  stock,
  packId,
  onClose,
  onChanged,
}: {
  stock: StockView;
  packId: string | null;
  onClose: () => void;
  onChanged: () => Promise<void>;
}) {
  const { zone } = useUnits();
  const act = useActKey();
  const first = stock.packs.find((p) => p.id === packId);
  const form = useForm({
    resolver: zodResolver(Bought),
    defaultValues: {
      packId,
      materialId: null,
      grams: [null, null, null],
      count: 1,
      price: first?.price ?? null,
      batch: "",
      place: "",
      bought: dayOf(stock.now, zone),
      good: "",
    },
  });
  const [chosen, named] = useWatch({ control: form.control, name: ["packId", "materialId"] });
  const pack = stock.packs.find((p) => p.id === chosen);
  const material = stock.materials.find((m) => m.id === (pack?.materialId ?? named));
  const gramsOf = (name: string): number | null => {
    const part = pack?.parts.find((p) => p.name === name);
    const density = material?.tubs.find((t) => t.name === name)?.densityGMl ?? null;
    return part ? (part.massG ?? (part.volumeMl !== null && density !== null ? part.volumeMl * density : null)) : null;
  };
  return (
    <Dialog open onOpenChange={onClose} title="Into the cupboard">
      <Form
        form={form}
        onSubmit={async (b) => {
          if (!material) return "Say what it is.";
          const tubs = pack ? pack.parts.map((p) => p.name) : material.tubs.map((t) => t.name);
          const parts = tubs
            .map((name, i) => ({ name, boughtG: pack ? gramsOf(name) : (b.grams[i] ?? null) }))
            .filter((p): p is { name: string; boughtG: number } => p.boughtG !== null);
          if (parts.length === 0) return "Say how much is in it.";
          const day = (text: string) => (text === "" ? null : dayEnd(text, zone));
          const a = await call("stock", "addLot", {
            body: {
              key: act.key(),
              materialId: material.id,
              name: pack?.name ?? material.name,
              parts,
              count: b.count ?? 1,
              price: b.price ?? pack?.price ?? null,
              batch: b.batch,
              place: b.place,
              boughtAt: Math.min(day(b.bought) ?? stock.now, stock.now),
              goodUntil: day(b.good),
              openedDays: pack?.openedDays ?? material.life.days,
            },
          });
          if (!a.ok) return a.message;
          act.answered();
          await onChanged();
          onClose();
          return null;
        }}
      >
        {stock.packs.length > 0 && (
          <PickInput
            name="packId"
            label="Which pack"
            none="Something else"
            options={stock.packs.map((p) => ({ value: p.id, label: `${stock.materials.find((m) => m.id === p.materialId)?.name ?? ""}: ${p.name}` }))}
          />
        )}
        {!pack && (
          <>
            <PickInput
              name="materialId"
              label="What it is"
              none="Choose"
              options={stock.materials.map((m) => ({ value: m.id, label: m.name, group: GROUP[m.kind] ?? m.kind }))}
            />
            {material && (
              <div className="grid grid-cols-2 gap-3">
                {material.tubs.map((t, i) => (
                  <QuantityInput key={t.name} name={`grams.${i}`} label={`In ${t.name}`} dimension="mass" min={0.1} max={1_000_000} />
                ))}
              </div>
            )}
          </>
        )}
        <div className="grid grid-cols-2 gap-3">
          <QuantityInput name="count" label="How many of it" dimension="count" min={1} max={50} whole />
          <QuantityInput name="price" label="Paid for each" dimension="money" min={0} max={1e6} />
          <TextInput name="batch" label="Number on the tubs" most={60} />
          <TextInput name="place" label="Where it stands" most={80} />
          <TextInput name="bought" label="Bought on" type="date" />
          <TextInput name="good" label="Good until, by its label" type="date" />
        </div>
        {material && <p className="hint">Once opened: {material.life.why}. The data sheet outranks that.</p>}
        <FormFault />
        <button type="submit" className="btn btn-main w-full justify-center" disabled={form.formState.isSubmitting}>
          It stands there
        </button>
      </Form>
    </Dialog>
  );
}

const GROUP: Record<string, string> = {
  rubber: "Rubbers",
  cast: "Casting materials",
  surface: "Surfaces",
  release: "Releases and sealers",
  box: "Box stock",
  sundry: "Wicks, cloth, powder, film",
};
