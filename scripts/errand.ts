import { openWorkshop, workshopFiles } from "../db/open";
import { runErrand, type Errand } from "../server/errandWork";
import { Refusal, storageRefusal } from "../server/refusal";

/** One errand in a process of its own, beside the server that asked for it: it tells how far it is, and ends with it. */
const [id = "", ask = ""] = process.argv.slice(2);
process.on("disconnect", () => process.exit(1));
const tell = (message: unknown): void => void process.send?.(message);
let told = 0;
try {
  const files = workshopFiles();
  const w = { db: openWorkshop(files), files, now: Date.now };
  const step = (doing: string, share: number): void => {
    // Every stage is told, and of one stage not more than a person can see.
    if (share > 0 && Date.now() - told < 100) return;
    told = Date.now();
    tell({ doing, share });
  };
  /** The server answers once it lets nobody change anything any more, until this process ends. */
  const shut = (): Promise<void> =>
    new Promise((done) => {
      process.once("message", () => done());
      tell({ shut: true });
    });
  const result = await runErrand(w, id, JSON.parse(ask) as Errand, step, shut);
  w.db.$client.close();
  process.send?.({ result }, () => process.disconnect());
} catch (e) {
  const refusal = e instanceof Refusal ? e : storageRefusal(e);
  if (!refusal) console.error(e);
  process.send?.(
    {
      refused: refusal
        ? { status: refusal.status, code: refusal.code, message: refusal.message }
        : { status: 500, code: "unexpected", message: "It went wrong here, and it is our fault. Nothing was changed." },
    },
    () => process.disconnect(),
  );
}
