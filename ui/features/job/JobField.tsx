"use client";

import { SHAPES, type SizeKey } from "@/core/master";
import type { NumberField } from "@/core/quantity";
import { JOB_FIELDS, numberAt, withNumberAt, type Job, type JobNumber } from "@/core/record";
import { NumberInput, type NumberWords } from "../../form/NumberOf";
import { useJob, useRemark } from "./JobContext";

type SizePath = `master.sizes.${SizeKey}`;

/** What a job's number is: from the table of its fields, or for a size of the master from its shape. */
function fieldAt(job: Job, path: JobNumber | SizePath): NumberField {
  if (path in JOB_FIELDS) return JOB_FIELDS[path as JobNumber];
  const shape = SHAPES[job.master.shape];
  return shape.fields.find((f) => path === `master.sizes.${f.key}`) ?? { label: path, dimension: "length", min: 0, max: 0 };
}

/** One number of the job: asked for as its table says, with the plan's remark about it, its half-typed entry kept over a reload. */
export function JobField({
  path,
  remarkAt,
  ...words
}: NumberWords & { path: JobNumber | SizePath; /** Where the plan speaks of it, if elsewhere. */ remarkAt?: string }) {
  const { id, job, edit } = useJob();
  const remark = useRemark(remarkAt ?? path);
  return (
    <NumberInput
      {...words}
      field={fieldAt(job, path)}
      value={numberAt(job, path)}
      remark={remark}
      draftKey={`${id}:${path}`}
      // How warm the shop is, is a word of this moment: clocks begun soon after go by it.
      onChange={(v) => edit((j) => ({ ...withNumberAt(j, path, v), ...(path === "shopC" ? { shopTypedAt: Date.now() } : {}) }))}
    />
  );
}
