/** Something that a line may name: a letter, or one pipe. */
export interface Named {
  name: string;
  pipes: string[];
}

/** "A 23 1/2" or "rail 1 bay 2: 48", one a line: the cuts by pipe, and the lines that name no piece. The lengths are read by the server. */
export function readPasted(text: string, names: Named[]): { cuts: [pipe: string, text: string][]; rest: string[] } {
  const longest = [...names].sort((a, b) => b.name.length - a.name.length);
  const cuts: [string, string][] = [];
  const rest: string[] = [];
  for (const line of text.split("\n")) {
    const t = line.trim();
    if (!t) continue;
    const named = longest.find((n) => t.toLowerCase().startsWith(n.name.toLowerCase()) && /^[\s:=,]+\S/.test(t.slice(n.name.length)));
    if (!named) {
      rest.push(line);
      continue;
    }
    const length = t.slice(named.name.length).replace(/^[\s:=,]+/, "");
    for (const id of named.pipes) cuts.push([id, length]);
  }
  return { cuts, rest };
}
