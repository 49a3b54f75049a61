import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import type { Project } from "../api/client";

const kinds = [
  ["cuts.csv", "Cut list, CSV"],
  ["shopping.csv", "Shopping list, CSV"],
  ["wireframe.json", "Wireframe, JSON"],
  ["frame.svg", "Drawing, SVG"],
] as const;

/** Saves the plan in an open format. */
export function ExportMenu({ project, disabled }: { project: Project; disabled: boolean }) {
  const [said, setSaid] = useState("");
  const save = async (kind: string) => {
    setSaid("");
    try {
      const r = await fetch(`/api/export/${kind}`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ project }) });
      if (!r.ok) throw new Error();
      const lost = r.headers.get("X-Lost");
      if (lost) setSaid(`The file cannot carry: ${lost}`);
      const a = document.createElement("a");
      a.href = URL.createObjectURL(await r.blob());
      a.download = `${project.name.replace(/[^\p{L}\p{N} _-]+/gu, "") || "frame"} ${kind}`;
      a.click();
      setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
    } catch {
      setSaid("It could not be saved; try again.");
    }
  };
  return (
    <>
      {said && (
        <span role="status" className="text-sm text-warn">
          {said}
        </span>
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn" disabled={disabled}>
          Save as
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content sideOffset={4} align="end" className="z-20 rounded-md border-2 border-ink bg-paper p-1 shadow-lg">
            {kinds.map(([k, label]) => (
              <DropdownMenu.Item key={k} onSelect={() => void save(k)} className="cursor-pointer rounded px-3 py-2 outline-none data-[highlighted]:bg-paper-2 data-[highlighted]:underline">
                {label}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item onSelect={() => setTimeout(() => print(), 50)} className="cursor-pointer rounded px-3 py-2 outline-none data-[highlighted]:bg-paper-2 data-[highlighted]:underline">
              Print
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
