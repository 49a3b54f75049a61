import { useCallback, useLayoutEffect, useRef } from "react";

/** A function that stays the same while what it does follows the last render. */
export function useStable<A extends unknown[], R>(f: (...args: A) => R): (...args: A) => R {
  const now = useRef(f);
  useLayoutEffect(() => {
    now.current = f;
  });
  return useCallback((...args: A) => now.current(...args), []);
}
