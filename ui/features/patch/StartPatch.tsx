"use client";

import { useRouter } from "next/navigation";
import { Fault } from "../../kit/controls";
import { useState } from "react";
import { rubberCure } from "@/core/cure";
import { patchProtocol, type Link } from "@/core/fit";
import type { Rubber } from "@/core/material";
import { Dialog } from "../../kit/Dialog";
import { call } from "../../data/call";
import { useUnits } from "../../kit/units";

/** The protocol of one patch test, and the tap that starts its clock. */
export function StartPatch({ link, rubber, shopC, onClose }: { link: Link; rubber: Rubber; shopC: number; onClose: () => void }) {
  const { say, fmt } = useUnits();
  const router = useRouter();
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const protocol = patchProtocol(link.contact, rubber, rubberCure(rubber, shopC).demould.hours.high);
  const start = async () => {
    setBusy(true);
    const answer = await call("patches", "start", {
      body: { pair: link.key, contact: link.contact, between: [...link.between], shopC, waitH: protocol.waitH },
    });
    setBusy(false);
    if (answer.ok) router.push(`/patch/${answer.data.id}`);
    else setFault(answer.message);
  };
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Patch test" description={`${link.between[0]} · ${link.between[1]}`}>
      <dl className="space-y-2">
        <Row name="How much">{say(protocol.amount)}</Row>
        <Row name="Where">{protocol.place}</Row>
        <Row name="Wait">
          {fmt(protocol.waitH, "duration")} at {fmt(shopC, "temperature")}: the slow end of its cure and half as long again.
        </Row>
        <Row name="Then">{protocol.look}</Row>
      </dl>
      <p className="hint my-3">Its answer holds for this very pair in this workshop, and for no other.</p>
      <Fault>{fault}</Fault>
      <button type="button" className="btn btn-main w-full" disabled={busy} onClick={() => void start()}>
        It is on: start the clock
      </button>
    </Dialog>
  );
}

const Row = ({ name, children }: { name: string; children: React.ReactNode }) => (
  <div>
    <dt className="text-sm text-soft">{name}</dt>
    <dd>{children}</dd>
  </div>
);
