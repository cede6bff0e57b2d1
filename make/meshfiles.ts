import { strToU8, zipSync } from "fflate";
import type { Print, PrintPart } from "./solids";

/** Room between parts laid side by side in one file, mm. */
const APART_MM = 8;

/** Parts moved apart along x, so that one file shows them all on the bed. */
export function sideBySide(parts: readonly PrintPart[]): { part: PrintPart; dx: number }[] {
  let x = 0;
  return parts.map((part) => {
    const dx = x + part.sizeMm[0] / 2;
    x += part.sizeMm[0] + APART_MM;
    return { part, dx };
  });
}

/** Binary STL, millimetres: 80 bytes of heading, a count, then normal and three corners for each triangle. */
export function stlOf(print: Print): Uint8Array {
  const placed = sideBySide(print.parts);
  const count = placed.reduce((s, { part }) => s + part.triangles.length / 3, 0);
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  bytes.set(strToU8("Zesty Ladle, millimetres"));
  view.setUint32(80, count, true);
  let at = 84;
  for (const { part, dx } of placed) {
    const { vertices: v, triangles: t } = part;
    for (let i = 0; i < t.length; i += 3) {
      const corner = (k: number): [number, number, number] => {
        const p = 3 * t[i + k]!;
        return [v[p]! + dx, v[p + 1]!, v[p + 2]!];
      };
      const [a, b, c] = [corner(0), corner(1), corner(2)];
      const [u, w] = [
        [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
        [c[0] - a[0], c[1] - a[1], c[2] - a[2]],
      ] as const;
      const n = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]] as const;
      const length = Math.hypot(...n) || 1;
      for (const value of [n[0] / length, n[1] / length, n[2] / length, ...a, ...b, ...c]) {
        view.setFloat32(at, value, true);
        at += 4;
      }
      at += 2;
    }
  }
  return bytes;
}

const xml = (text: string) => text.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c] ?? c);

/** 3MF, millimetres: each part an object of its own, laid side by side [3MF Core Specification]. */
export function threeMfOf(print: Print): Uint8Array {
  const placed = sideBySide(print.parts);
  const objects = placed.map(({ part }, i) => {
    const v: string[] = [];
    for (let k = 0; k < part.vertices.length; k += 3) v.push(`<vertex x="${part.vertices[k]}" y="${part.vertices[k + 1]}" z="${part.vertices[k + 2]}"/>`);
    const t: string[] = [];
    for (let k = 0; k < part.triangles.length; k += 3)
      t.push(`<triangle v1="${part.triangles[k]}" v2="${part.triangles[k + 1]}" v3="${part.triangles[k + 2]}"/>`);
    return `<object id="${i + 1}" type="model" name="${xml(part.name)}"><mesh><vertices>${v.join("")}</vertices><triangles>${t.join("")}</triangles></mesh></object>`;
  });
  const items = placed.map(({ dx }, i) => `<item objectid="${i + 1}" transform="1 0 0 0 1 0 0 0 1 ${dx} 0 0"/>`);
  const model = `<?xml version="1.0" encoding="UTF-8"?>
<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>${objects.join("")}</resources><build>${items.join("")}</build></model>`;
  return zipSync({
    "[Content_Types].xml": strToU8(
      `<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`,
    ),
    "_rels/.rels": strToU8(
      `<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="model" Target="/3D/3dmodel.model" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`,
    ),
    "3D/3dmodel.model": strToU8(model),
  });
}
