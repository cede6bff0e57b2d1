/**
 * A pure function of one thing that never changes, whose answer is kept for as long as that thing is: a body of many outlines is asked the
 * same of each of them again and again while something else is dragged.
 */
export function kept<K extends object, V>(of: (k: K) => V): (k: K) => V {
  const answers = new WeakMap<K, { v: V }>();
  return (k) => {
    const known = answers.get(k);
    if (known) return known.v;
    const v = of(k);
    answers.set(k, { v });
    return v;
  };
}
