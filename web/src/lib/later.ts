import { noticed } from "./touch";
import { type ComponentType, createElement, lazy, useState } from "react";

const waiting: (() => Promise<unknown>)[] = [];

const again = 2000; // ms after a failure

/** Code that is fetched until it is there: the server may have stopped for a while. One of another version has it no more, which the page then says. */
async function fetched<T>(load: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await load();
    } catch {
      await fetch("/api/about").then(noticed, () => undefined);
      await new Promise((go) => setTimeout(go, again));
    }
  }
}

/** A component whose code comes after the first picture: when it is asked for, or with all the rest. Once it is there, it is drawn at once. */
export function later<P extends object>(load: () => Promise<{ default: ComponentType<P> }>): ComponentType<P> {
  let there: ComponentType<P> | undefined;
  let coming: Promise<{ default: ComponentType<P> }> | undefined;
  const come = () => {
    coming ??= fetched(load).then((m) => {
      there = m.default;
      return m;
    });
    return coming;
  };
  waiting.push(come);
  const Lazy: ComponentType<P> = lazy(come);
  return function Later(given: P) {
    const [Drawn] = useState<ComponentType<P>>(() => there ?? Lazy);
    return createElement(Drawn, given);
  };
}

/** Fetches all code that is still to come, so that it is there when it is asked for, whether the server answers then or not. */
export const fetchLater = () => {
  for (const come of waiting) void come();
};
