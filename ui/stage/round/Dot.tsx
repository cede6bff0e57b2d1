/** A spot of a colour of the picture, beside the words that say what it is. */
export function Dot({ hue }: { hue: string }) {
  return <span className="inline-block size-3.5 rounded-sm border border-ink align-[-2px]" style={{ background: hue }} aria-hidden="true" />;
}
