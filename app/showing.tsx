import type { ReactNode } from "react";
import { oddWords } from "@/server/odd";

/** A page that says in words which stored entry cannot be read, where that is why it cannot be shown. */
export const showing =
  <P,>(page: (props: P) => ReactNode | Promise<ReactNode>) =>
  async (props: P): Promise<ReactNode> => {
    try {
      return await page(props);
    } catch (e) {
      const words = oddWords(e);
      if (words === null) throw e;
      return (
        <div className="mx-auto max-w-xl space-y-4 py-16">
          <h1 className="text-3xl font-bold">This entry cannot be read</h1>
          <p role="alert">{words}</p>
          <p>
            Everything else in the workshop stands.{" "}
            <a className="underline" href="/settings#odd">
              Settings
            </a>{" "}
            list it, and hand it out as a file.
          </p>
        </div>
      );
    }
  };
