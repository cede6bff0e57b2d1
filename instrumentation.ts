/** Runs once as the server starts: opens the gate to the network where the workshop asks for it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const [{ tendGate }, { tidyOutgoing }, { dailyDue, metDamage }, { startErrand }, { workshop, WorkshopTaken, WorkshopUnavailable }] = await Promise.all([
    import("./server/gate"),
    import("./server/backup/places"),
    import("./server/daily"),
    import("./server/errands"),
    import("./server/workshop"),
  ]);
  // A copy a day, and a look at the file: asked about often, done when due.
  const tend = () => {
    try {
      const w = workshop();
      tidyOutgoing(w);
      if (dailyDue(w)) startErrand(w, { do: "daily" }, metDamage);
    } catch (e) {
      console.error(e);
    }
  };
  setTimeout(tend, 60_000).unref();
  setInterval(tend, 3_600_000).unref();
  try {
    await tendGate(workshop());
  } catch (e) {
    if (e instanceof WorkshopTaken) {
      console.error(`\n${e.message}\n`);
      process.exit(1);
    }
    // A workshop that cannot be opened says so on its pages.
    if (!(e instanceof WorkshopUnavailable)) throw e;
  }
}
