/** Runs once as the server starts: opens the gate to the network where the workshop asks for it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const [{ tendGate }, { workshop, WorkshopUnavailable }] = await Promise.all([import("./server/gate"), import("./server/workshop")]);
  try {
    await tendGate(workshop());
  } catch (e) {
    // A workshop that cannot be opened says so on its pages.
    if (!(e instanceof WorkshopUnavailable)) throw e;
  }
}
