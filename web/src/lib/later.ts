import { type ComponentType, lazy } from "react";

const waiting: (() => Promise<unknown>)[] = [];

/** A component whose code comes after the first picture: when it is asked for, or with all the rest. */
export function later<P>(load: () => Promise<{ default: ComponentType<P> }>) {
  waiting.push(load);
  return lazy(load);
}

/** Fetches all code that is still to come, so that it is there when it is asked for, whether the server answers then or not. */
export const fetchLater = () => {
  for (const load of waiting) load().catch(() => {}); // whoever needs it says so
};
