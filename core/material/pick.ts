/** Finds an entry by id, or null if the id is null or names nothing on this list. */
export function pick<T extends { id: string }>(list: readonly T[], id: string | null): T | null {
  return id === null ? null : (list.find((m) => m.id === id) ?? null);
}
