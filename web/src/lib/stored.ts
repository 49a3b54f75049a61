import { useCallback, useState } from "react";

const key = (name: string) => `sturdyelbow.${name}`;

/** Whether a switch that this browser remembers is on; undefined where it was never touched. */
export function kept(name: string): boolean | undefined {
  const was = localStorage.getItem(key(name));
  return was === null ? undefined : was === "yes";
}

export const keep = (name: string, on: boolean) => localStorage.setItem(key(name), on ? "yes" : "no");

/** A switch that this browser remembers. */
export function useSwitch(name: string): [boolean, () => void] {
  const [on, setOn] = useState(() => kept(name) === true);
  const flip = useCallback(() => {
    keep(name, !on);
    setOn(!on);
  }, [name, on]);
  return [on, flip];
}
