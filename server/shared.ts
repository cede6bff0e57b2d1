const held = globalThis as { zestyShared?: Map<string, Map<string, unknown>> };

/**
 * A map that pages and routes of one process share: each is bundled with modules of its own, so what a module keeps is kept twice. It may be
 * emptied at any time.
 */
export function shared<V>(name: string): Map<string, V> {
  const all = (held.zestyShared ??= new Map());
  const there = all.get(name) ?? new Map<string, unknown>();
  all.set(name, there);
  return there as Map<string, V>;
}
