"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useForm } from "react-hook-form";
import * as z from "zod";
import { EQUIPMENT, EQUIPMENT_KEYS } from "@/core/clock/kinds";
import { useActKey } from "../../data/key";
import { call } from "../../data/call";
import { Form, FormFault, PickInput, QuantityInput, TextInput } from "../../form/Form";
import { Dialog } from "../../kit/Dialog";
import { useBenchClocks } from "./BenchClocks";
import { mayAskToNotify, SoundSwitch } from "./SoundSwitch";

const Timer = z.object({
  label: z.string().trim().min(1, "Say what it is for."),
  hours: z
    .number()
    .nullable()
    .refine((h) => h !== null, "Say how long."),
  equipment: z.enum(EQUIPMENT_KEYS).nullable(),
});
const QUICK_MIN = [1, 5, 10, 30, 60];

/** A timer of one's own: what for, how long, and whether it holds the vacuum pot. */
export function StartTimer({ onClose }: { onClose: () => void }) {
  const { refresh } = useBenchClocks();
  const { key } = useActKey();
  const form = useForm({ resolver: zodResolver(Timer), defaultValues: { label: "", hours: null, equipment: null } });
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Set a timer">
      <Form
        form={form}
        onSubmit={async ({ label, hours, equipment }) => {
          mayAskToNotify();
          const a = await call("clocks", "start", {
            body: { key: key(), label, minutes: hours * 60, equipment, kind: equipment === "vacuum-pot" ? "degas" : "other" },
          });
          if (!a.ok) return a.message;
          await refresh();
          onClose();
        }}
      >
        <TextInput name="label" label="What for?" most={120} placeholder="Jacket sets" />
        <QuantityInput name="hours" label="How long?" dimension="duration" min={1 / 3600} max={24 * 60} />
        <div className="flex flex-wrap gap-2" role="group" aria-label="Usual lengths">
          {QUICK_MIN.map((m) => (
            <button key={m} type="button" className="chip" onClick={() => form.setValue("hours", m / 60, { shouldValidate: form.formState.isSubmitted })}>
              {m} min
            </button>
          ))}
        </div>
        <PickInput
          name="equipment"
          label="Does it hold something there is only one of?"
          options={EQUIPMENT_KEYS.map((k) => ({ value: k, label: EQUIPMENT[k][0]!.toUpperCase() + EQUIPMENT[k].slice(1) }))}
          none="No"
        />
        <FormFault />
        <div className="flex flex-wrap items-center justify-between gap-3">
          <SoundSwitch />
          <button type="submit" className="btn btn-main text-lg" disabled={form.formState.isSubmitting}>
            Start
          </button>
        </div>
      </Form>
    </Dialog>
  );
}
