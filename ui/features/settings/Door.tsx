"use client";

import { useState } from "react";
import { Caution, Fault } from "../../kit/controls";
import type { DoorView } from "@/contract/workshop";
import { call, type Sent } from "../../data/call";

/** Whether tablets on the local network may come in, behind which passphrase, and letting one in by a picture. */
export function Door({ initial }: { initial: DoorView }) {
  const [d, setD] = useState(initial);
  const [passphrase, setPassphrase] = useState("");
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
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void change(() => call("door", "set", { body: { passphrase } })).then((ok) => ok && setPassphrase(""));
        }}
      >
        <label className="min-w-0 flex-1 basis-56 space-y-1">
          <span className="label">{d.passphrase ? "A new passphrase" : "The workshop’s passphrase"}</span>
          <input
            className="field"
            type="password"
            autoComplete="new-password"
            maxLength={200}
            value={passphrase}
            onChange={(e) => setPassphrase(e.target.value)}
          />
        </label>
        <button type="submit" className="btn" disabled={passphrase === ""}>
          {d.passphrase ? "Change it" : "Set it"}
        </button>
      </form>
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
