/** How well a command answers to what is typed: its very name first, then what begins with it, what has it in its name, and what people say for it. */
export function rank(name: string, typed: string, also?: string[]): number {
  const [n, t] = [name.toLowerCase(), typed.trim().toLowerCase()];
  if (!t || n === t) return 1;
  if (n.startsWith(t)) return 0.9;
  if (n.split(/[^\p{L}\p{N}]+/u).some((w) => w.startsWith(t))) return 0.8;
  if (t.length > 1 && n.includes(t)) return 0.7;
  const words = `${n} ${(also ?? []).join(" ").toLowerCase()}`;
  // a single letter is a piece's, and no part of other words
  return t.length > 1 && t.split(/\s+/).every((w) => words.includes(w)) ? 0.4 : 0;
}
