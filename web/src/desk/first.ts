import type { First } from "./open-project";

/** What the page brought along of a project, once: what is opened later is read anew. */
export function firstOf(id: string): First | undefined {
  const el = document.getElementById("first");
  el?.remove();
  try {
    const first = JSON.parse(el?.textContent || "null") as First | null;
    return first?.id === id ? first : undefined;
  } catch {
    return undefined;
  }
}
