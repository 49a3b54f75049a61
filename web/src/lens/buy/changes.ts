import { type Project, api, ask } from "../../api/client";

// What could be otherwise about how a project is bought and cut.

/** Cut with another tool. */
export const cutWith = (p: Project, tool: string): Project => ({ ...p, tool });

/** Cemented in another way. */
export const cementedBy = (p: Project, school: string): Project => ({ ...p, school: (school || undefined) as Project["school"] });

/** Bought in sticks of some lengths, for this project. */
export const inSticksOf = (p: Project, lengths: number[]): Project => ({
  ...p,
  sale: { ...p.sale, stock: lengths.map((length) => ({ length })) },
});

/** Of pipe of another size. What that asks is an error. */
export async function ofSize(p: Project, size: string, id: string): Promise<Project> {
  const a = await ask(api.POST("/api/edit", { body: { project: p, edit: { usual: { size } }, of: id } }));
  if (a.question) throw new Error("That asks which size gives way: change it in the Size lens.");
  return a.project;
}
