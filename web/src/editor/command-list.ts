import type { OpenProject } from "../desk/open-project";
import { named, namesOf } from "../frame/names";
import type { View } from "../frame/scene/rig";
import { type CommandOf, type Lens, type LensId, keyOf } from "../lens/lens";
import { lenses } from "../lens/lenses";
import { currentTheme, setTheme } from "../lib/theme";
import { styles } from "./editor-bar";
import { exportAs, exportKinds } from "./export-menu";

interface Around {
  open: OpenProject;
  active?: Lens;
  flat: boolean;
  view?: (v: View) => void;
  toLens: (l: LensId) => void;
  toSheet: () => void;
  flipPerspective: () => void;
  flipFlat: () => void;
  help: () => void;
  home: () => void;
}

const views: [View, string, string][] = [
  ["front", "From the front", "Shift 1"],
  ["side", "From the side", "Shift 2"],
  ["top", "From above", "Shift 3"],
  ["corner", "From the corner", "Shift 4"],
  ["fit", "The whole frame", "Home"],
];

/** Everything that can be commanded by name. */
export function commandsOf(b: Around): CommandOf[] {
  const { open } = b;
  const desk = open.documents;
  const { history, planned } = open.store.getState();
  const { plan } = planned;
  const names = namesOf(plan?.frames[0]);
  const now = desk.current();
  const all: CommandOf[] = lenses.map((l) => ({
    group: "Lens",
    name: `${l.name}: ${l.question}`,
    keys: keyOf(l.id),
    icon: l.icon,
    run: () => b.toLens(l.id),
  }));
  const past = history?.past.at(-1);
  const future = history?.future[0];
  if (past) all.push({ group: "Change", name: `Undo: ${named(past.label, names)}`, keys: "Ctrl Z", icon: "undo", run: desk.undo });
  if (future) all.push({ group: "Change", name: `Redo: ${named(future.label, names)}`, keys: "Ctrl Y", icon: "redo", run: desk.redo });
  for (const f of plan?.findings ?? [])
    for (const x of f.fixes ?? []) all.push({ group: "Change", name: x.label, also: f.text, icon: "check", run: () => open.fix(x) });
  for (const l of lenses) all.push(...(l.commands?.(open) ?? []));
  if (b.view)
    for (const [v, name, keys] of views)
      all.push({ group: "View", name, keys, icon: v === "left" ? undefined : (v as "front"), run: () => b.view?.(v) });
  if (b.view) all.push({ group: "View", name: "Parallel or perspective", keys: "O", icon: "perspective", run: b.flipPerspective });
  all.push({ group: "View", name: b.flat ? "Turn the frame in space" : "Draw the frame flat", also: "webgl 3d svg", run: b.flipFlat });
  all.push({
    group: "View",
    name: currentTheme() === "dark" ? "Light" : "Dark",
    also: "theme night",
    icon: "theme",
    run: () => setTheme(currentTheme() === "dark" ? "light" : "dark"),
  });
  for (const [s, , words] of styles)
    if (s !== now?.project.style)
      all.push({
        group: "Units",
        name: `Lengths in ${words}`,
        also: "units metric imperial",
        icon: "size",
        run: () => desk.edit(`Lengths as ${s}`, (p) => ({ ...p, style: s })),
      });
  all.push({ group: "Paper", name: "Build sheet, to print", keys: "Ctrl P", icon: "print", run: b.toSheet });
  for (const [k, name] of exportKinds)
    all.push({
      group: "Paper",
      name: `Save as: ${name}`,
      also: "export download",
      icon: "file",
      run: () => now && void exportAs(k, now, open.id),
    });
  for (const g of plan?.cuts ?? [])
    all.push({ group: "Find", name: `Pipe ${g.letter}`, also: "show letter piece", run: () => open.pick({ is: "letter", id: g.letter }) });
  all.push({ group: "Help", name: "Keys", keys: "?", icon: "keys", run: b.help });
  all.push({ group: "Help", name: "To the projects", also: "shelf home", icon: "left", run: b.home });
  return all;
}
