import type { Finding, Fix, Plan } from "../api/client";
import type { Desk } from "../desk/history";
import type { Mode } from "../desk/mode-rules";
import type { DeskOf } from "../desk/use-desk";
import type { Picked } from "../frame/items";
import type { View } from "../frame/scene/rig";
import { setHold } from "../lens/joints/actions";
import { type LensId, lenses } from "../lens/lenses";
import { currentTheme, setTheme } from "../lib/theme";
import { styles } from "./editor-bar";
import type { CommandOf } from "./commands";
import { exportAs, exportKinds } from "./export-menu";

interface OpenProject {
  desk: DeskOf;
  now: Desk;
  plan?: Plan;
  flat: boolean;
  view?: (v: View) => void;
  toLens: (l: LensId) => void;
  toSheet: () => void;
  flipPerspective: () => void;
  flipFlat: () => void;
  help: () => void;
  home: () => void;
  setPicked: (p: Picked) => void;
  onFix: (f: Finding, x: Fix) => void;
}

const views: [View, string, string][] = [
  ["front", "From the front", "Shift 1"],
  ["side", "From the side", "Shift 2"],
  ["top", "From above", "Shift 3"],
  ["corner", "From the corner", "Shift 4"],
  ["fit", "The whole frame", "Home"],
];

/** Everything that can be commanded by name. */
export function commandsOf(b: OpenProject): CommandOf[] {
  const { desk, plan } = b;
  const all: CommandOf[] = lenses.map((l, i) => ({ group: "Lens", name: `${l.name}: ${l.asks}`, keys: String(i + 1), icon: l.icon, run: () => b.toLens(l.id) }));
  const past = desk.history?.past.at(-1);
  const future = desk.history?.future[0];
  if (past) all.push({ group: "Change", name: `Undo: ${past.label}`, keys: "Ctrl Z", icon: "undo", run: desk.undo });
  if (future) all.push({ group: "Change", name: `Redo: ${future.label}`, keys: "Ctrl Y", icon: "redo", run: desk.redo });
  for (const f of plan?.findings ?? []) for (const x of f.fixes ?? []) all.push({ group: "Change", name: x.label, also: f.text, icon: "check", run: () => b.onFix(f, x) });
  const joints: [string, Mode, string][] = [
    ["Cement every joint", "cemented", "glue"],
    ["Leave every joint dry", "slip", "slip fit no glue"],
    ["Ease every joint to lift off", "eased", "sand"],
  ];
  for (const [name, mode, also] of joints) all.push({ group: "Joints", name, also, icon: "joints", run: () => setHold(desk, "All joints", {}, mode) });
  if ((b.now.project.modeRules?.length ?? 0) > 0) all.push({ group: "Joints", name: "Joints as they began", also: "reset", icon: "joints", run: () => desk.edit("Joints as they began", (p) => ({ ...p, modeRules: [] })) });
  if (b.view) for (const [v, name, keys] of views) all.push({ group: "View", name, keys, icon: v === "left" ? undefined : (v as "front"), run: () => b.view?.(v) });
  if (b.view) all.push({ group: "View", name: "Parallel or perspective", keys: "O", icon: "perspective", run: b.flipPerspective });
  all.push({ group: "View", name: b.flat ? "Turn the frame in space" : "Draw the frame flat", also: "webgl 3d svg", run: b.flipFlat });
  all.push({ group: "View", name: currentTheme() === "dark" ? "Light" : "Dark", also: "theme night", icon: "theme", run: () => setTheme(currentTheme() === "dark" ? "light" : "dark") });
  for (const [s, , words] of styles) if (s !== b.now.project.style) all.push({ group: "Units", name: `Lengths in ${words}`, also: "units metric imperial", icon: "size", run: () => desk.edit(`Lengths as ${s}`, (p) => ({ ...p, style: s })) });
  all.push({ group: "Paper", name: "Build sheet, to print", keys: "Ctrl P", icon: "print", run: b.toSheet });
  for (const [k, name] of exportKinds) all.push({ group: "Paper", name: `Save as: ${name}`, also: "export download", icon: "file", run: () => void exportAs(k, b.now) });
  for (const g of plan?.cuts ?? []) all.push({ group: "Find", name: `Pipe ${g.letter}`, also: "show letter piece", run: () => b.setPicked({ is: "letter", id: g.letter }) });
  all.push({ group: "Help", name: "Keys", keys: "?", icon: "keys", run: b.help });
  all.push({ group: "Help", name: "To the projects", also: "shelf home", icon: "left", run: b.home });
  return all;
}
