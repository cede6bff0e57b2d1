import { Job, JOB_FIELDS, newJob, numberAt, withNumberAt, type JobNumber } from ".";

/** A job in which every number has its place. */
const full: Job = {
  ...newJob("Full"),
  mould: { ...newJob("").mould, ownBox: { lengthMm: 200, widthMm: 150 } },
  strength: {
    ...newJob("").strength,
    stand: { lengthMm: 600, widthMm: 300, heightMm: 300, loadG: 20_000 },
    chamber: { diameterMm: 250, heightMm: 250 },
  },
};
const PATHS = Object.keys(JOB_FIELDS) as JobNumber[];
const refusals = (path: JobNumber, value: number | null) => {
  const read = Job.safeParse(withNumberAt(full, path, value));
  return read.success ? [] : read.error.issues.map((i) => i.path.join("."));
};

/** Dotted paths of every number in a value, lists left out. */
function numbersIn(value: unknown, path = ""): string[] {
  if (typeof value === "number") return [path];
  if (typeof value !== "object" || value === null || Array.isArray(value)) return [];
  return Object.entries(value).flatMap(([k, v]) => numbersIn(v, path === "" ? k : `${path}.${k}`));
}

describe("the numbers of a job", () => {
  it.each(PATHS)("%s is kept from its least to its most, and refused beyond", (path) => {
    const f = JOB_FIELDS[path];
    const least = "above" in f ? f.above : f.min;
    const [inside, beyond] = "above" in f ? [[f.min], [least, least - 1]] : [[least], [least - 1]];
    for (const v of [...inside, f.max, Math.round((f.min + f.max) / 2)]) expect([v, refusals(path, v)]).toEqual([v, []]);
    for (const v of [...beyond, f.max + 1, Number.NaN, Number.POSITIVE_INFINITY]) expect([v, refusals(path, v)]).toEqual([v, [path]]);
    expect(refusals(path, null)).toEqual("open" in f ? [] : [path]);
    expect(refusals(path, f.min + 0.5)).toEqual("whole" in f ? [path] : []);
  });

  it("are all asked for somewhere: no number of a job is without its field", () => {
    const beside = ["format", ...numbersIn(full.master.sizes, "master.sizes")];
    expect(numbersIn(full).filter((p) => !PATHS.includes(p as JobNumber) && !beside.includes(p))).toEqual([]);
  });

  it.each(PATHS)("%s is set without touching another", (path) => {
    const before = structuredClone(full);
    const after = withNumberAt(full, path, 7.25);
    expect(full).toEqual(before);
    expect(numberAt(after, path)).toBe(7.25);
    for (const other of PATHS) if (other !== path) expect(numberAt(after, other)).toBe(numberAt(full, other));
  });

  it("are left alone where nothing stands that could hold them", () => {
    const bare = newJob("Bare");
    expect(numberAt(bare, "mould.ownBox.lengthMm")).toBeNull();
    expect(withNumberAt(bare, "mould.ownBox.lengthMm", 3)).toEqual(bare);
    expect(withNumberAt(bare, "__proto__.polluted", 3)).toEqual(bare);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
});
