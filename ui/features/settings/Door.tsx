"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { useForm } from "react-hook-form";
import * as z from "zod";
import { Caution, Fault } from "../../kit/controls";
import type { DoorView } from "@/contract/workshop";
import { Form, TextInput } from "../../form/Form";
import { call, type Sent } from "../../data/call";

const Passphrase = z.object({ passphrase: z.string().min(1, "Type the passphrase first.") });

/** Whether tablets on the local network may come in, behind which passphrase, and letting one in by a picture. */
export function Door({ initial }: { initial: DoorView }) {
  const [d, setD] = useState(initial);
  const form = useForm({ resolver: zodResolver(Passphrase), defaultValues: { passphrase: "" } });
  const [fault, setFault] = useState<string | null>(null);
  const [code, setCode] = useState<{ url: string; svg: string } | null>(null);
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
    const a = await call("door", "pair", {});
    setFault(a.ok ? null : a.message);
    if (a.ok) setCode(a.data);
  };
  return (
    <div className="space-y-3">
      <p>
        {d.open
          ? `Devices on your network reach this workshop at ${d.addresses.map((x) => `http://${x}:${d.port}`).join(" or ") || "no address yet"}, behind its passphrase.`
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
        {d.open && (
          <>
            <button type="button" className="btn btn-main" onClick={() => void pair()}>
              Pair a device
            </button>
            <button type="button" className="btn" onClick={() => void change(() => call("door", "shut", {}))}>
              Sign every device out
            </button>
          </>
        )}
      </div>
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
      {d.open && (
        <Caution>
          The local network carries this unencrypted, so anyone who listens in on it could read along. Use a network you trust, and pair by the picture.
        </Caution>
      )}
    </div>
  );
}
