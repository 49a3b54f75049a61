import type { Fix, Project, Shop } from "../api/client";
import type { Desk } from "./history";

type Members = Record<string, unknown>;

/** Carries out a finding's fix: edits of the project, or of the shop where the path says so. */
export function applyFix(d: Desk, x: Fix): Desk {
  let { project, shop } = d;
  for (const e of x.edits) {
    const keys = e.path
      .split("/")
      .slice(1)
      .map((k) => k.replaceAll("~1", "/").replaceAll("~0", "~"));
    if (keys[0] === "shop") shop = set(shop, keys.slice(1), e.value) as Shop;
    else project = set(project, keys, e.value) as Project;
  }
  return project === d.project && shop === d.shop ? d : { project, shop };
}

/** Sets a member by its JSON pointer; "-" adds to the end of a list. */
function set(at: unknown, keys: string[], value: unknown): unknown {
  const [k, ...rest] = keys;
  if (k === undefined) return value;
  if (Array.isArray(at)) {
    if (k === "-") return [...at, value];
    return at.map((v, i) => (String(i) === k ? set(v, rest, value) : v));
  }
  if (at === undefined && k === "-") return [value];
  const members = (at ?? {}) as Members;
  return { ...members, [k]: set(members[k], rest, value) };
}
