import { readFileSync, existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { expect, test } from "vitest";

/** Every file of the project that a file brings along when it is loaded, itself first. What is only its types is not brought along. */
function broughtBy(file: string, all = new Set<string>()): Set<string> {
  if (all.has(file)) return all;
  all.add(file);
  for (const [, from] of readFileSync(file, "utf8").matchAll(/^(?:import|export) (?!type )[^;]*?from "(\.[^"]+)"/gms)) {
    const at = join(dirname(file), from ?? "");
    const found = [`${at}.tsx`, `${at}.ts`].find((p) => existsSync(p));
    if (found) broughtBy(found, all);
  }
  return all;
}

// Paper is drawn of a plan that was read for it: there is no open project around it, and what asks for one would break the whole page.
test.each(["build-sheet.tsx", "labels.tsx"])("%s needs no open project", (page) => {
  const brought = [...broughtBy(join(__dirname, page))].filter((f) => f.endsWith("desk/use.tsx"));
  expect(brought).toEqual([]);
});
