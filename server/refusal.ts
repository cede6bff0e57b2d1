/** Something a person can put right: what was wrong, and what to do. Carries the HTTP status it travels under. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly detail: Record<string, unknown> = {},
  ) {
    super(message);
    this.name = "Refusal";
  }
}

/** Reads the code of an error from SQLite or the file system, or "". */
export const codeOf = (e: unknown): string => (typeof e === "object" && e !== null && "code" in e && typeof e.code === "string" ? e.code : "");

/** Turns what storage can throw into words; returns null for anything unexpected. */
export function storageRefusal(e: unknown): Refusal | null {
  const code = codeOf(e);
  if (code.startsWith("SQLITE_READONLY") || code === "EROFS" || code === "EACCES")
    return new Refusal(
      503,
      "read-only",
      "This workshop is open for reading only, so nothing can be saved. What you typed is still on this page. Make the data folder writable and try again.",
    );
  if (code === "SQLITE_FULL" || code === "ENOSPC" || code === "EDQUOT")
    return new Refusal(507, "disk-full", "The disk is full, so this was not saved. What you entered is still here: free some space and try again.");
  if (e instanceof TypeError && e.message === "The database connection is not open")
    return new Refusal(503, "exchanged", "The workshop's file has just been exchanged for a copy. Nothing was lost: try again in a moment.");
  if (code.startsWith("SQLITE_BUSY") || code.startsWith("SQLITE_LOCKED"))
    return new Refusal(503, "busy", "Another program is using the workshop file. Nothing was lost: try again in a moment.");
  return null;
}

/** What a use case found, or null where it refused because there is no such thing. */
export function foundOrNull<T>(find: () => T): T | null {
  try {
    return find();
  } catch (e) {
    if (e instanceof Refusal && e.status === 404) return null;
    throw e;
  }
}
