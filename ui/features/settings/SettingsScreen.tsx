"use client";

import { useState, type ReactNode } from "react";
import type { DoorView, KeptCopy, OddEntry, SettingsChange } from "@/contract/workshop";
import { FORECAST_FIELDS, NEW_JOB_FIELDS, type Settings } from "@/core/workshop";
import { mayAskToNotify, SoundSwitch } from "../clocks/SoundSwitch";
import { NumberOf } from "../../form/NumberOf";
import { useSaved } from "../../data/useSaved";
import { Conflict } from "../../form/Conflict";
import { UnitChoices } from "./UnitChoices";
import { Backup } from "./Backup";
import { Copies } from "./Copies";
import { Prices } from "./Prices";
import { Cups } from "./Cups";
import { Door } from "./Door";
import { Light } from "./Light";
import { OddEntries } from "./OddEntries";
import { settingsDocument } from "./settingsDocument";

const clock = (min: number): string => `${String(Math.floor(min / 60)).padStart(2, "0")}:${String(min % 60).padStart(2, "0")}`;
const minutes = (text: string): number | null => {
  const m = /^(\d{1,2}):(\d{2})$/.exec(text);
  return m && Number(m[1]) < 24 && Number(m[2]) < 60 ? Number(m[1]) * 60 + Number(m[2]) : null;
};

function Time({ label, value, onChange }: { label: string; value: number; onChange: (min: number) => void }) {
  return (
    <label className="block space-y-1">
      <span className="label">{label}</span>
      <input
        type="time"
        className="field"
        value={clock(value)}
        onChange={(e) => {
          const m = minutes(e.target.value);
          if (m !== null) onChange(m);
        }}
      />
    </label>
  );
}

const Section = ({ id, title, children }: { id: string; title: string; children: ReactNode }) => (
  <section id={id} aria-labelledby={`${id}-h`} className="card scroll-mt-4 space-y-3 p-4">
    <h2 id={`${id}-h`} className="text-xl font-bold">
      {title}
    </h2>
    {children}
  </section>
);

/** What holds for the whole workshop: its name and hours, its temperature, its cups, its door, and its backup. */
export function SettingsScreen({
  initial,
  machineZone,
  door,
  odd: met,
  kept,
  now,
}: {
  initial: Settings;
  machineZone: string;
  door: DoorView;
  odd: readonly OddEntry[];
  kept: readonly KeptCopy[];
  now: number;
}) {
  const [{ view: s, save: saving }, document] = useSaved<Settings, SettingsChange>(() => settingsDocument(initial));
  const [odd, setOdd] = useState(met);
  const save = (patch: SettingsChange) => document.update(patch);
  const state =
    saving.kind === "failed"
      ? saving.message
      : saving.kind === "conflict"
        ? "Not saved"
        : saving.kind === "saved"
          ? s === initial
            ? null
            : "Saved"
          : "Saving";
  const f = s.forecast ?? { dayC: s.shopC, nightC: s.shopC, dayFromMin: 480, dayToMin: 1200 };
  return (
    <div className="space-y-4 pb-10 pt-2">
      <div className="flex items-baseline justify-between gap-4">
        <h1 className="text-3xl font-bold sm:text-4xl">The workshop</h1>
        <p role="status" className={state && state !== "Saved" && state !== "Saving" ? "fault" : "hint"}>
          {state}
        </p>
      </div>
      {saving.kind === "conflict" && (
        <Conflict resolve={document.resolve}>The workshop’s settings were changed somewhere else since this page read them.</Conflict>
      )}
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <div className="space-y-4">
          <Section id="hours" title="Name and hours">
            <label className="block space-y-1">
              <span className="label">Name</span>
              <input className="field" maxLength={60} value={s.workshopName} onChange={(e) => save({ workshopName: e.target.value })} />
            </label>
            <div className="grid grid-cols-2 gap-3">
              <Time label="Somebody is up from" value={s.waking.fromMin} onChange={(fromMin) => save({ waking: { ...s.waking, fromMin } })} />
              <Time label="until" value={s.waking.toMin} onChange={(toMin) => save({ waking: { ...s.waking, toMin } })} />
            </div>
            <label className="block space-y-1">
              <span className="label">Time zone</span>
              <input className="field" maxLength={60} value={s.zone} placeholder={machineZone} onChange={(e) => save({ zone: e.target.value.trim() })} />
              <span className="hint block">
                Empty takes the machine’s own, {machineZone}. Clocks count absolute time: neither a zone nor summer time moves them.
              </span>
            </label>
            <Light />
            <div className="flex flex-wrap gap-2">
              <SoundSwitch />
              <button type="button" className="chip" onClick={mayAskToNotify}>
                Let this browser call out
              </button>
            </div>
            <p className="hint">Browsers notify only on the first machine, or over a secure address; sound and the banner work everywhere.</p>
          </Section>
          <Section id="units" title="Units">
            <UnitChoices />
          </Section>
          <Section id="temperature" title="What to expect of the shop">
            <p className="hint">Where no thermometer says better, cure clocks run on this.</p>
            <div className="grid grid-cols-2 gap-3">
              <NumberOf fields={FORECAST_FIELDS} of="dayC" item={f} change={(patch) => save({ forecast: { ...f, ...patch } })} />
              <NumberOf fields={FORECAST_FIELDS} of="nightC" item={f} change={(patch) => save({ forecast: { ...f, ...patch } })} />
              <Time label="Day begins" value={f.dayFromMin} onChange={(dayFromMin) => save({ forecast: { ...f, dayFromMin } })} />
              <Time label="Night begins" value={f.dayToMin} onChange={(dayToMin) => save({ forecast: { ...f, dayToMin } })} />
            </div>
            <NumberOf fields={NEW_JOB_FIELDS} of="shopC" item={s} change={save} />
          </Section>
          <Section id="door" title="A tablet at the bench">
            <Door initial={door} now={now} />
          </Section>
        </div>
        <div className="space-y-4">
          <Section id="cups" title="Cups and tubs, measured once">
            <Cups cups={s.cups} save={(cups) => save({ cups })} />
          </Section>
          <Section id="backup" title="Backup and restore">
            <Backup />
          </Section>
          <Section id="prices" title="How you make a price">
            <Prices pricing={s.pricing} save={(pricing) => save({ pricing })} />
          </Section>
          <Section id="copies" title="Copies, and a look through">
            <Copies initial={kept} now={now} daily={s.dailyCopies} onDaily={(dailyCopies) => save({ dailyCopies })} onOdd={setOdd} />
          </Section>
          {(odd.length > 0 || met.length > 0) && (
            <Section id="odd" title="Entries that cannot be read">
              <OddEntries entries={odd} setEntries={setOdd} />
            </Section>
          )}
        </div>
      </div>
    </div>
  );
}
