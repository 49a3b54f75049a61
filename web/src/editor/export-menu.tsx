import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { hasAll } from "../desk/shelf";
import { fileOf } from "../desk/server";
import { download } from "../lib/download";
import type { Desk } from "../desk/history";
import { useOpen } from "../desk/use";
import { Icon } from "../ui/icons";
import { Menu } from "../ui/menu";

export const exportKinds = [
  ["project.json", "The project, all of it, JSON"],
  ["lines.txt", "The lines it was drawn with, text"],
  ["cuts.csv", "Cut list, CSV"],
  ["shopping.csv", "Shopping list, CSV"],
  ["frame.json", "The frame alone, JSON"],
  ["wireframe.json", "Wireframe, JSON"],
  ["frame.svg", "Drawing, SVG"],
] as const;

/** The lines that draw the frame, as a text. */
export const lines = async (desk: Desk, id: string) => (await fileOf(desk, "lines.txt", { of: id })).text();

/** Saves the plan in an open format, with what was done just now; gives what the file could not carry. */
export async function exportAs(kind: string, desk: Desk, id: string): Promise<string> {
  const all = await hasAll(id);
  const r = await fileOf(desk, kind, { of: id });
  download(await r.blob(), `${desk.project.name.replace(/[^\p{L}\p{N} _-]+/gu, "") || "frame"} ${kind}`);
  const lost = r.headers.get("X-Lost");
  if (!all) return "What waits on this device to be sent is not in the file.";
  return lost ? `The file cannot carry: ${decodeURIComponent(lost)}` : "";
}

export function ExportMenu({ desk, disabled, onPrint }: { desk: Desk; disabled: boolean; onPrint: () => void }) {
  const { id } = useOpen();
  const [said, setSaid] = useState("");
  const save = (kind: string) => {
    exportAs(kind, desk, id)
      .then(setSaid)
      .catch(() => setSaid("It could not be saved; try again."));
  };
  return (
    <>
      {said && (
        <span role="status" className="text-sm text-warn">
          {said}
        </span>
      )}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="btn btn-small" disabled={disabled}>
          <Icon name="file" size={18} /> <span className="max-sm:sr-only">Save as</span>
        </DropdownMenu.Trigger>
        <Menu align="end" aria-label="Save as">
          {exportKinds.map(([k, label]) => (
            <DropdownMenu.Item key={k} onSelect={() => save(k)} className="menu-item">
              {label}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item onSelect={onPrint} className="menu-item">
            Build sheet, to print
          </DropdownMenu.Item>
        </Menu>
      </DropdownMenu.Root>
    </>
  );
}
