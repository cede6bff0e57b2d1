"use client";

import { FlaskRound } from "lucide-react";
import dynamic from "next/dynamic";
import { useState } from "react";
import { isTriable, type Chain, type Contact, type Link } from "@/core/fit";
import { Fold } from "../../kit/Fold";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { useJob } from "./JobContext";

const StartPatch = dynamic(() => import("../patch/StartPatch").then((m) => m.StartPatch), { ssr: false });

/** The contacts of the chain, worst first, each with its reasons and what would change it. */
export function ChainList({ chain, only }: { chain: Chain; only?: readonly Contact[] }) {
  const { say } = useUnits();
  const { job, plan } = useJob();
  const [trying, setTrying] = useState<Link | null>(null);
  // The rubber that would be spread: between two rubbers it is the second.
  const spread = trying?.contact === "rubber-rubber" ? (plan.pours.at(-1)?.rubber ?? plan.rubber) : plan.rubber;
  const order = { no: 0, untested: 1, care: 2, sound: 3 };
  const links = chain.links.filter((l) => !only || only.includes(l.contact)).sort((a, b) => order[a.verdict] - order[b.verdict]);
  if (links.length === 0) return <p className="hint">Verdicts appear once both sides of a contact are chosen.</p>;
  return (
    <>
      {trying && spread && <StartPatch link={trying} rubber={spread} shopC={job.shopC} onClose={() => setTrying(null)} />}
      <ul className="divide-y divide-line">
        {links.map((l) => (
          <li key={`${l.contact}-${l.between.join()}`} className="py-2">
            <Fold
              open={l.verdict === "no" || l.verdict === "untested"}
              titleClass="min-h-10"
              title={
                <span className="flex min-w-0 grow flex-wrap items-center justify-between gap-x-3">
                  <span className="min-w-0 font-semibold">{l.label}</span>
                  <VerdictMark verdict={l.verdict} />
                </span>
              }
            >
              <p className="hint">
                {l.between[0]} · {l.between[1]}
              </p>
              <ul className="mt-1 space-y-2">
                {l.findings.map((f) => (
                  <li key={f.ruleId} className="border-l-4 border-line pl-3 text-[0.95rem] leading-snug">
                    <p>
                      <VerdictMark verdict={f.verdict} size={15} word={false} className="mr-1 align-[-2px]" />
                      {say(f.reason)}
                    </p>
                    <p className="mt-0.5">
                      <span className="font-semibold">Instead: </span>
                      {say(f.remedy)}
                    </p>
                    <p className="hint">
                      {f.confidence === "established" ? "Established" : f.confidence === "usual" ? "Usual practice" : "Our judgement"} · {f.source}
                    </p>
                  </li>
                ))}
              </ul>
              {isTriable(l.contact) && l.verdict !== "sound" && (
                <button type="button" className="btn mt-2 !min-h-10 !py-1 text-sm" onClick={() => setTrying(l)} aria-label={`Try a patch: ${l.label}`}>
                  <FlaskRound size={16} aria-hidden="true" /> Try a patch
                </button>
              )}
            </Fold>
          </li>
        ))}
      </ul>
    </>
  );
}
