import { OPENING } from "../../mould";
import { mm, surfaceIs, type NeedsOf } from "./kind";

/** Keys of a clay parting sit this far from the piece, and one to about so much of the seam, mm: usual workshop sizes. */
const KEY = { fromPieceMm: 10, everyMm: 80, least: 4 };
/** Flatter than this share of its width, what will not keep its shape is laid in a bed. */
const FLAT = 0.35;
/** Least depth of a bed of sand under a leaf or a cloth, mm: a usual one. */
const BED_MM = 30;

/** What the master, its board, its box and the clay round it call for. */
export const boardNeeds: NeedsOf = (p) => {
  const { job } = p.dossier;
  const { body, layout } = p;
  const kind = OPENING[job.mould.opening];
  const limp = surfaceIs(p, "spent") && body.heightMm < FLAT * Math.min(body.lengthMm, body.widthMm);
  const block = layout.kind === "block" ? layout : null;
  const parted = kind.halves && block !== null && block.partingAtMm !== null;
  const wall = block?.box.leastWallMm ?? 0;
  return [
    surfaceIs(p, "wet") && { id: "keep-damp", step: "prepare", text: "Keep the damp clay wrapped, and unwrap it only a little ahead of your hand." },
    surfaceIs(p, "spent") && {
      id: "spent",
      step: "prepare",
      text: "The master is spent by the moulding: keep the first casting, so that a second mould can come from it.",
    },
    limp && {
      id: "bed",
      step: "prepare",
      text: `Lay it in a bed of damp sand, some ${mm(Math.max(BED_MM, body.heightMm))} deep, pressed up under it until nothing is hollow; pins through the thickest places hold it. For a dish shape lay it over a bowl or a form of the depth you want. Film keeps sand off the face.`,
    },
    block && {
      id: "board-plan",
      step: "box",
      text: `Draw the inside of the box on the board, ${mm(block.box.lengthMm)}${block.box.shape === "cylindrical" ? " across" : ` × ${mm(block.box.widthMm)}`}, and where the master stands in it; mark which side comes off first.`,
    },
    block !== null &&
      job.mould.ownBox === null && {
        id: "cut-box",
        step: "box",
        text: "Cut with the blade upright. Mark each piece, which side is up, and arrows over the joints. A side longer than the sheet is made of two pieces with a strip behind the joint. Clamps, rings or wedges hold it, and come off first.",
      },
    block !== null &&
      job.mould.ownBox !== null && {
        id: "own-tub",
        step: "box",
        text: `Your own tub has to be at least ${mm(block.fillHeightMm)} deep inside; keep it: the mould goes back into it to be filled.`,
      },
    kind.made === "skin" &&
      !kind.pressed &&
      !kind.tray &&
      body.heightMm > TALL * Math.max(body.lengthMm, body.widthMm) && {
        id: "post",
        step: "prepare",
        text: "Stand it on a post through its foot, so that it can be brushed all round, and hung head-down while a coat sets.",
      },
    parted && {
      id: "mend-master",
      step: "rubber",
      text: "Before the second half: press dings out, glue back what broke off, and look that no rod or pole of the master is locked in from both sides.",
    },
    block !== null &&
      p.pours.some((x) => (x.lift?.holdDownG ?? 0) > 0) && {
        id: "hold-down",
        step: "box",
        text: "Tack it down from below, or with screws that come out again: sealed all round it cannot be freed, and untacked it floats. Under vacuum tack it and never seal it: air shut in under it lifts it.",
      },
    parted && {
      id: "film",
      step: "prepare",
      text: "Lay thin film between the clay bed and fine detail that must stay clean; the last finger's width to the seam is bare clay.",
    },
    parted && {
      id: "keys",
      step: "prepare",
      text: `Keys: about ${Math.max(KEY.least, Math.round((block?.box.perimeterMm ?? 0) / KEY.everyMm))}, ${mm(Math.max(4, Math.min(15, wall / 2)))} across and half as deep, ${mm(Math.min(KEY.fromPieceMm, wall / 3))} from the piece (usual sizes), not one of them under it. Smooth the clay with a moist finger and a flat wet brush.`,
    },
    ...(kind.plugs ? job.mould.plugs : []).map((plug) => ({
      id: `hole-${plug.name}`,
      step: "prepare" as const,
      text:
        plug.diameterMm < DRILL.mm && plug.lengthMm > DRILL.slender * plug.diameterMm
          ? `${plug.name}, ${mm(plug.diameterMm)} by ${mm(plug.lengthMm)}: fill it with clay and drill the castings. Press a dimple into the clay, so that each casting has a mark for the drill.`
          : `${plug.name}, ${mm(plug.diameterMm)} by ${mm(plug.lengthMm)}: leave it to its plug. Through both faces, close it half-way with a thin disc of clay, pressed from one side and not too hard: the web of rubber over it is cut in its middle afterwards.`,
    })),
    p.layout.kind === "skin" &&
      kind.made === "skin" &&
      kind.sections && {
        id: "seam-strips",
        step: "prepare",
        text: `Mark the seam before the first coat: a ridge pressed into the clay, or strips pinned along it after the coats, ${mm(job.mould.skin.flangeMm)} wide. A ridge finds the halves again.`,
      },
  ];
};

/** Taller than so many times its width, it is brushed on a post. */
const TALL = 1.3;

/** A hole so thin and so slender wants a drill sooner than a core of rubber, mm and length to width. */
const DRILL = { mm: 8, slender: 4 };
