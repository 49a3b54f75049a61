import { useState } from "react";

/** How many answers of a question are shown before more are asked for. */
const atOnce = 5;

/** The first few of what can be chosen, how many more there are, and a function that shows those too. */
export function useFew<T>(all: T[]) {
  const [whole, setWhole] = useState(false);
  const shown = whole ? all : all.slice(0, atOnce);
  return { shown, more: all.length - shown.length, showAll: () => setWhole(true) };
}

/** What the button says that shows them. */
export const moreAnswers = (n: number) => (n === 1 ? "One more answer…" : `${n} more answers…`);
