"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useForm } from "react-hook-form";
import * as z from "zod";
import type { DeviceView, DoorView, May } from "@/contract/workshop";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import { useUnits } from "../../kit/units";
import { Form, TextInput } from "../../form/Form";
import { call, type Sent } from "../../data/call";
import { read } from "../../data/read";

const Passphrase = z.object({ passphrase: z.string().min(1, "Type the passphrase first.") });

const MAY_OPTIONS: { value: May; label: string }[] = [
  { value: "bench", label: "Weigh and log" },
  { value: "all", label: "Also restore, delete and import" },
];

/** Whether tablets on the local network may come in, behind which passphrase, and letting one in by a picture. */
export function Door({ initial, now }: { initial: DoorView; now: number }) {
  const queries = useQueryClient();
  const { data: d } = useQuery({
    queryKey: ["door"],
    queryFn: () => read("door", "read", {}),
    initialData: initial,
    // A device that has just been let in shows up by itself.
    refetchInterval: (q) => (q.state.data?.open ? 4000 : false),
    staleTime: Infinity,
  });
  const setD = (data: DoorView) => void queries.setQueryData(["door"], data);
  const form = useForm({ resolver: zodResolver(Passphrase), defaultValues: { passphrase: "" } });
  const [fault, setFault] = useState<string | null>(null);
  const [code, setCode] = useState<{ url: string; svg: string } | null>(null);
  const [may, setMay] = useState<May>("bench");
  if (!d.first) return <p>This device came in through the door. Passphrase and pairing are set up on the first machine.</p>;
  const change = async (ask: () => Promise<Sent<DoorView>>) => {
    setCode(null);
    const a = await ask();
    setFault(a.ok ? null : a.message);
    if (!a.ok) return false;
    setD(a.data);
    return true;
  };
  const pair = async () => {
    const a = await call("door", "pair", { body: { may } });
    setFault(a.ok ? null : a.message);
    if (a.ok) setCode(a.data);
  };
  return (
    <div className="space-y-3">
      <p>
        {d.open
          ? `Devices on your network reach this workshop at ${d.addresses.map((x) => `https://${x}:${d.port}`).join(" or ") || "no address yet"}, behind its passphrase.`
          : "Only this machine reaches the workshop. A tablet or phone on the same network can, once you let it."}
      </p>
      <Fault>{d.fault ?? fault}</Fault>
      <Form
        form={form}
        className="flex flex-wrap items-end gap-2"
        onSubmit={async (body) => {
          if (await change(() => call("door", "set", { body }))) form.reset();
        }}
      >
        <div className="min-w-0 flex-1 basis-56">
          <TextInput
            name="passphrase"
            label={d.passphrase ? "A new passphrase" : "The workshop’s passphrase"}
            type="password"
            autoComplete="new-password"
            most={200}
          />
        </div>
        <button type="submit" className="btn" disabled={form.formState.isSubmitting}>
          {d.passphrase ? "Change it" : "Set it"}
        </button>
      </Form>
      {d.passphrase && <p className="hint">Changing it signs every device out.</p>}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className={`btn ${d.open ? "" : "btn-main"}`}
          onClick={() => void change(() => call("door", "set", { body: { listen: !d.open } }))}
        >
          {d.open ? "Stop listening" : "Let devices on the network in"}
        </button>
      </div>
      {d.open && (
        <div className="space-y-3 border-t border-line pt-3">
          <Choice<May> label="A new device may" value={may} options={MAY_OPTIONS} onChange={setMay} />
          <button type="button" className="btn btn-main" onClick={() => void pair()}>
            Pair a device
          </button>
        </div>
      )}
      {code && (
        <figure className="space-y-2">
          <div
            role="img"
            aria-label="Pairing code: hold the device’s camera to it"
            className="w-64 max-w-full rounded-xl border border-line bg-white"
            dangerouslySetInnerHTML={{ __html: code.svg }}
          />
          <figcaption className="hint break-all">Good for one device and five minutes: {code.url}</figcaption>
        </figure>
      )}
      {d.devices.length > 0 && (
        <ul aria-label="Devices that are let in" className="divide-y divide-line border-t border-line">
          {d.devices.map((device) => (
            <Device key={device.id} device={device} now={now} change={change} />
          ))}
        </ul>
      )}
      {d.devices.length > 1 && (
        <button type="button" className="btn" onClick={() => void change(() => call("door", "shut", {}))}>
          Sign every device out
        </button>
      )}
      {d.fingerprint && (
        <div className="space-y-1 border-t border-line pt-3">
          <h3 className="font-bold">If a device’s browser warns</h3>
          <p>
            The line is encrypted, and the workshop signs for itself. On the device, open{" "}
            <b className="[overflow-wrap:anywhere]">{d.trustUrl ?? "/door/trust"}</b> and follow the steps; it can then notify, stay awake, and read a scale on
            a cable. Compare these letters there:
          </p>
          <p className="break-words font-mono text-sm">{d.fingerprint}</p>
        </div>
      )}
    </div>
  );
}

/** One device that was let in: its name, what it may do, and the way out. */
function Device({ device, now, change }: { device: DeviceView; now: number; change: (ask: () => Promise<Sent<DoorView>>) => Promise<boolean> }) {
  const { wall } = useUnits();
  const [name, setName] = useState(device.name);
  const set = (body: { name?: string; may?: May }) => change(() => call("door", "device", { params: { id: device.id }, body }));
  const rename = async () => {
    const wanted = name.trim();
    if (wanted === device.name) return;
    if (wanted === "" || !(await set({ name: wanted }))) setName(device.name);
  };
  return (
    <li className="space-y-2 py-3">
      <div className="flex flex-wrap items-end gap-2">
        <label className="min-w-0 flex-1 basis-48 space-y-1">
          <span className="hint block">Last seen {wall(device.seenAt, now)}</span>
          <input
            className="field"
            aria-label={`Name of ${device.name}`}
            maxLength={60}
            value={name}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => void rename()}
          />
        </label>
        <button
          type="button"
          className="btn"
          aria-label={`Sign ${device.name} out`}
          onClick={() => void change(() => call("door", "signOut", { params: { id: device.id } }))}
        >
          Sign out
        </button>
      </div>
      <Choice<May> label={`${device.name} may`} value={device.may} options={MAY_OPTIONS} onChange={(m) => void set({ may: m })} />
    </li>
  );
}
