import { useCallback, useState } from "react";

/** A switch that this browser remembers. */
export function useSwitch(name: string): [boolean, () => void] {
  const key = `sturdyelbow.${name}`;
  const [on, setOn] = useState(() => localStorage.getItem(key) === "yes");
  const flip = useCallback(
    () =>
      setOn((was) => {
        localStorage.setItem(key, was ? "no" : "yes");
        return !was;
      }),
    [key],
  );
  return [on, flip];
}
