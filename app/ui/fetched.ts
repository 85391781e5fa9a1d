import { useEffect, useState } from "react";
import { later } from "./later";

/**
 * A hook that gives what is fetched once for all screens, where the first look does without it.
 * @param fetch what fetches it, as an `import()`
 * @returns the hook: null until it is here. Where it is not wanted yet it is fetched once the page is there, or, with
 * `false` for `ahead`, not at all
 */
export function fetched<T>(
  fetch: () => Promise<T>,
  { ahead }: { ahead: boolean },
): (wanted: boolean) => T | null {
  let known: { value: T } | null = null;
  return (wanted) => {
    // What is fetched may be a function, which a state would call.
    const [here, setHere] = useState(known);
    useEffect(() => {
      if (here || (!wanted && !ahead)) return;
      let current = true;
      const get = () =>
        void fetch().then((value) => {
          known = { value };
          if (current) setHere(known);
        });
      const giveUp = wanted ? get() : later(get);
      return () => {
        current = false;
        giveUp?.();
      };
    }, [here, wanted]);
    return here ? here.value : null;
  };
}
