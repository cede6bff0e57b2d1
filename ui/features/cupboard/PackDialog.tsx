"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useForm, useWatch } from "react-hook-form";
import * as z from "zod";
import type { StockView } from "@/contract/stock";
import { call } from "../../data/call";
import { useActKey } from "../../data/key";
import { ChoiceInput, Form, FormFault, PickInput, QuantityInput, TextInput } from "../../form/Form";
import { Dialog } from "../../kit/Dialog";

const amount = z.number().nullable();
const Told = z.object({
  materialId: z
    .string()
    .nullable()
    .refine((v) => v !== null, "Say of what."),
  name: z.string().trim().min(1, "Say what it is called: 1 kg kit.").max(80),
  by: z.enum(["mass", "volume"]),
  amounts: z.array(amount),
  price: amount,
  from: z.string(),
  openedDays: amount,
});

/** A pack as it is bought: size of each tub by weight or volume, price, where from, and how long an opened one is good. */
export function PackDialog({
  stock,
  pack,
  onClose,
  onChanged,
}: {
  stock: StockView;
  pack: StockView["packs"][number] | null;
  onClose: () => void;
  onChanged: () => Promise<void>;
}) {
  const act = useActKey();
  const form = useForm({
    resolver: zodResolver(Told),
    defaultValues: {
      materialId: pack?.materialId ?? null,
      name: pack?.name ?? "",
      by: pack && pack.parts.every((p) => p.massG === null) ? ("volume" as const) : ("mass" as const),
      amounts: [0, 1, 2, 3, 4, 5].map((i) => pack?.parts[i]?.massG ?? pack?.parts[i]?.volumeMl ?? null),
      price: pack?.price ?? null,
      from: pack?.from ?? "",
      openedDays: pack?.openedDays ?? null,
    },
  });
  const [materialId, by] = useWatch({ control: form.control, name: ["materialId", "by"] });
  const material = stock.materials.find((m) => m.id === materialId);
  const byVolume = material?.tubs.every((t) => t.densityGMl !== null) ?? false;
  return (
    <Dialog open onOpenChange={onClose} title={pack ? "This pack" : "A pack you buy"}>
      <Form
        form={form}
        onSubmit={async (t) => {
          if (!material) return "Say of what.";
          const parts = material.tubs.flatMap((tub, i) => {
            const v = t.amounts[i] ?? null;
            return v === null ? [] : [{ name: tub.name, massG: t.by === "mass" ? v : null, volumeMl: t.by === "volume" ? v : null }];
          });
          if (parts.length === 0) return "Say how much is in it.";
          const body = { materialId: material.id, name: t.name, parts, price: t.price, from: t.from, openedDays: t.openedDays };
          const was = pack ? { name: pack.name, parts: pack.parts, price: pack.price, from: pack.from, openedDays: pack.openedDays } : {};
          const a = pack
            ? await call("stock", "savePack", { params: { id: pack.id }, body: { ...body, was } })
            : await call("stock", "addPack", { body: { ...body, key: act.key() } });
          if (!a.ok) return a.message;
          act.answered();
          await onChanged();
          onClose();
          return null;
        }}
      >
        <PickInput name="materialId" label="Of what" none="Choose" options={stock.materials.map((m) => ({ value: m.id, label: m.name }))} />
        <TextInput name="name" label="What it is called" most={80} placeholder="1 kg kit" />
        {byVolume && (
          <ChoiceInput
            name="by"
            label="Its label says"
            options={[
              { value: "mass", label: "Weight" },
              { value: "volume", label: "Volume" },
            ]}
          />
        )}
        {material && (
          <div className="grid grid-cols-2 gap-3">
            {material.tubs.map((t, i) => (
              <QuantityInput
                key={`${by} ${t.name}`}
                name={`amounts.${i}`}
                label={`In ${t.name}`}
                dimension={by === "mass" ? "mass" : "volume"}
                min={0.1}
                max={1_000_000}
              />
            ))}
          </div>
        )}
        <div className="grid grid-cols-2 gap-3">
          <QuantityInput name="price" label="Price" dimension="money" min={0} max={1e6} />
          <TextInput name="from" label="Where from" most={80} />
          <QuantityInput
            name="openedDays"
            label="Good once opened, days"
            dimension="count"
            min={0}
            max={3650}
            whole
            placeholder={material?.life.days === null ? "does not spoil" : String(material?.life.days ?? "")}
          />
        </div>
        {material && <p className="hint">Usual of its kind: {material.life.why}. The data sheet outranks that.</p>}
        <FormFault />
        <button type="submit" className="btn btn-main w-full justify-center" disabled={form.formState.isSubmitting}>
          Keep it
        </button>
        {pack && (
          <button
            type="button"
            className="btn w-full justify-center"
            onClick={async () => {
              const a = await call("stock", "removePack", { params: { id: pack.id } });
              if (!a.ok) return form.setError("root", { message: a.message });
              await onChanged();
              onClose();
            }}
          >
            Take it off the list
          </button>
        )}
      </Form>
    </Dialog>
  );
}
