import { type Edit, type Fix, type Project, Refusal, api, ask } from "../api/client";
import { unitOf } from "../lib/format";
import type { Style } from "../lib/format";
import { applyFix } from "./fix";
import { toldOf } from "./gestures";
import { same } from "./merge";

/** What was done to a stored project that is not open here. */
export interface Elsewhere {
  /** Of the project. */
  name: string;
  label: string;
  /** Takes it back, unless the project was changed since. */
  undo: () => Promise<void>;
}

const read = (id: string) => ask(api.GET("/api/projects/{id}", { params: { path: { id } } }));

const write = async (id: string, revision: number, project: Project) =>
  (await ask(api.PUT("/api/projects/{id}", { params: { path: { id } }, body: { revision, project } }))).revision;

/** Carries out a fix of a project in the store. What asks something, or is refused, is an error in words, and changes nothing. */
export async function fixStored(id: string, x: Fix): Promise<Elsewhere> {
  const stored = await read(id);
  let { project } = stored;
  const labels: string[] = [];
  for (const e of x.edits) {
    if (e.path !== "/gesture") {
      project = applyFix({ project, shop: {} as never }, { ...x, edits: [e] }).project;
      continue;
    }
    const edit = { unit: unitOf((project.style || "inches") as Style), ...(e.value as Edit) };
    try {
      const a = await ask(api.POST("/api/edit", { body: { project, edit, of: id } }));
      if (a.question) throw new Error(`It asks something first: ${a.question.what}. Open the project, and do it there.`);
      project = a.project;
      labels.push(toldOf(a.done));
    } catch (why) {
      throw why instanceof Refusal ? new Error(Object.values(why.places)[0] ?? why.message) : why;
    }
  }
  const before = stored.project;
  const revision = await write(id, stored.revision, project);
  return {
    name: project.name || "Without a name",
    label: labels.join("; ") || x.label,
    undo: async () => {
      const now = await read(id);
      if (now.revision !== revision && !same(now.project, project)) throw new Error("The project was changed since: take it back there.");
      await write(id, now.revision, before);
    },
  };
}
