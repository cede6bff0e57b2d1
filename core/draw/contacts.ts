import type { Contact, Link } from "../fit";
import type { Plan } from "../plan";
import type { Scene } from "./scene";
import type { Stuff } from "./stuffs";

/** Which stuffs of a picture touch at a contact. */
const MEETS: Partial<Record<Contact, readonly [readonly Stuff[], readonly Stuff[]]>> = {
  "surface-rubber": [["master"], ["rubber", "tinted"]],
  "clay-rubber": [["clay"], ["rubber"]],
  "rubber-rubber": [["oldRubber", "plug"], ["rubber"]],
  "box-rubber": [["box"], ["rubber"]],
  "seal-rubber": [["box"], ["rubber"]],
  "jacket-rubber": [["jacket"], ["rubber", "tinted"]],
  "rubber-cast": [["cast"], ["rubber", "oldRubber", "tinted"]],
  "release-cast": [["cast"], ["rubber", "oldRubber", "tinted"]],
  "mould-cast": [["cast"], ["rubber", "oldRubber", "tinted"]],
  "cast-use": [["cast"], ["cast"]],
  "cast-finish": [["cast"], ["cast"]],
};

/** The contacts of a job that lie in a picture, or that one stuff of it has a part in. */
export function contactsIn(plan: Pick<Plan, "chain">, stuffs: readonly Stuff[], stuff: Stuff | null = null): Link[] {
  return plan.chain.links.filter((l) => {
    const meets = MEETS[l.contact];
    if (!meets) return false;
    const [a, b] = meets.map((side) => side.filter((s) => stuffs.includes(s)));
    if (!a || !b || a.length === 0 || b.length === 0) return false;
    return stuff === null || a.includes(stuff) || b.includes(stuff);
  });
}

/** A contact to be looked at, on the picture: everything that is not sound, at a point where its two sides meet, mm. */
export function troubledContacts(plan: Plan, scene: Scene): { link: Link; xMm: number; zMm: number }[] {
  const stuffs = [...new Set(scene.regions.map((r) => r.stuff))];
  const { fromMm, toMm, halfMm } = scene.master;
  const parting = scene.lines.find((l) => l.name === "parting")?.zMm ?? fromMm;
  const outer = plan.layout?.kind === "block" ? plan.layout.box.lengthMm / 2 : scene.halfMm * 0.9;
  const between = (halfMm + outer) / 2;
  const point = (contact: Contact): readonly [number, number] => {
    switch (contact) {
      case "surface-rubber":
      case "rubber-cast":
        return [-halfMm, fromMm + (toMm - fromMm) * 0.35];
      case "release-cast":
        return [-halfMm, fromMm + (toMm - fromMm) * 0.6];
      case "mould-cast":
        return [halfMm, fromMm + (toMm - fromMm) * 0.2];
      case "cast-use":
        return [0, fromMm + (toMm - fromMm) * 0.62];
      case "cast-finish":
        return [0, fromMm + (toMm - fromMm) * 0.38];
      case "clay-rubber":
      case "rubber-rubber":
        return [-between, parting];
      case "box-rubber":
        return [-outer, scene.topMm * 0.55];
      case "seal-rubber":
        return [-outer, 0];
      case "jacket-rubber":
        return [outer * 0.92, scene.topMm * 0.6];
    }
  };
  const seen = new Map<string, number>();
  return contactsIn(plan, stuffs)
    .filter((l) => l.verdict !== "sound")
    .map((link) => {
      const [xMm, zMm] = point(link.contact);
      // Two of a kind stand one above the other.
      const nth = seen.get(link.contact) ?? 0;
      seen.set(link.contact, nth + 1);
      return { link, xMm, zMm: zMm + nth * (scene.topMm - scene.bottomMm) * 0.1 };
    });
}
