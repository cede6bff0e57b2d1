"use client";

import { Printer } from "lucide-react";
import Link from "next/link";
import { useUnits } from "../../kit/units";
import { formatIn } from "../../kit/zone";

/** A label of 60 × 40 mm for one mould: its name, its place, and a picture that opens its page. */
export function LabelScreen({
  id,
  name,
  place,
  madeAt,
  url,
  open,
  svg,
}: {
  id: string;
  name: string;
  place: string;
  madeAt: number;
  url: string;
  open: boolean;
  svg: string;
}) {
  const { zone } = useUnits();
  return (
    <div className="space-y-4 pb-10 pt-2 print:m-0 print:p-0">
      <style>{`@page { size: 60mm 40mm; margin: 0 } @media print { html, body { width: 60mm; height: 40mm } body > * { padding: 0 !important; margin: 0 !important } main { padding: 0 } }`}</style>
      <div className="no-print space-y-3">
        <p className="text-sm">
          <Link href={`/rack/${id}`} className="underline">
            {name}
          </Link>
        </p>
        <h1 className="text-3xl font-bold">Label</h1>
        <p className="text-soft">60 × 40 mm. Print at actual size, without margins.</p>
        {!open && (
          <p className="hint font-semibold !text-care">
            A tablet that reads the picture finds nothing yet: let devices on the network in, in the workshop’s settings, first.
          </p>
        )}
        <button type="button" className="btn btn-main" onClick={() => window.print()}>
          <Printer size={19} aria-hidden="true" /> Print
        </button>
      </div>
      <div
        data-testid="label"
        className="flex overflow-hidden border border-line bg-white text-black print:border-0"
        style={{ width: "60mm", height: "40mm", padding: "2.5mm", gap: "2.5mm", color: "#000" }}
      >
        <div role="img" aria-label={`Opens ${url}`} style={{ width: "28mm", height: "28mm", flexShrink: 0 }} dangerouslySetInnerHTML={{ __html: svg }} />
        <div className="flex min-w-0 flex-col" style={{ fontSize: "3.4mm", lineHeight: 1.15 }}>
          <b style={{ fontSize: "4.2mm", overflowWrap: "anywhere" }}>{name}</b>
          {place && <span style={{ marginTop: "1mm" }}>{place}</span>}
          <span style={{ marginTop: "auto", fontSize: "2.8mm" }}>born {formatIn(madeAt, "d MMM yyyy", zone)}</span>
          <span style={{ fontSize: "2mm", overflowWrap: "anywhere" }}>{url}</span>
        </div>
      </div>
    </div>
  );
}
