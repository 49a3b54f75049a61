import { type ComponentType, createElement, lazy, useState } from "react";

const waiting: (() => Promise<unknown>)[] = [];

/** A component whose code comes after the first picture: when it is asked for, or with all the rest. Once it is there, it is drawn at once. */
export function later<P extends object>(load: () => Promise<{ default: ComponentType<P> }>): ComponentType<P> {
  let loaded: ComponentType<P> | undefined;
  const fetched = async () => {
    const m = await load();
    loaded = m.default;
    return m;
  };
  waiting.push(fetched);
  const Lazy: ComponentType<P> = lazy(fetched);
  return function Later(given: P) {
    const [Drawn] = useState<ComponentType<P>>(() => loaded ?? Lazy);
    return createElement(Drawn, given);
  };
}

/** Fetches all code that is still to come, so that it is there when it is asked for, whether the server answers then or not. */
export const fetchLater = () => {
  for (const load of waiting) load().catch(() => {}); // whoever needs it says so
};
