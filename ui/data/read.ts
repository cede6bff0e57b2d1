import { call, type Answer, type Api, type Asked } from "./call";

/** What the server refused, as an error for a reader that tries again by itself. */
export class NotRead extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
    this.name = "NotRead";
  }
}

/** Asks once and throws {@link NotRead} where there is no answer: for queries that are kept fresh. */
export async function read<A extends keyof Api, N extends keyof Api[A]>(
  area: A,
  name: N,
  asked: Parameters<typeof call<A, N>>[2] & Partial<Asked<A, N>>,
): Promise<Answer<A, N>> {
  const answer = await call(area, name, asked);
  if (!answer.ok) throw new NotRead(answer.status, answer.message);
  return answer.data;
}
