import { SaveNote } from "./save-note";
import { useDesk, useNamed, useNow, useOpenState, useProject, useStyle } from "../desk/use";
import { Pick } from "../ui/pick";
import { IconButton, TopBar } from "../ui/ui";
import { ExportMenu } from "./export-menu";

export const styles = [
  ["inches", "23 5⁄8″", "inches"],
  ["feet-inches", "1′ 11 5⁄8″", "feet and inches"],
  ["decimal", "23.625″", "decimal inches"],
  ["metric", "600 mm", "millimetres"],
] as const;

interface Props {
  ready: boolean;
  onCommands: () => void;
  onHelp: () => void;
  onPrint: () => void;
}

/** The workbench's top line: the name, whether it is saved, and the way back. */
export function EditorBar({ ready, onCommands, onHelp, onPrint }: Props) {
  const desk = useDesk();
  const now = useNow();
  const style = useStyle();
  const named = useNamed();
  const past = useOpenState((s) => s.history?.past.at(-1));
  const future = useOpenState((s) => s.history?.future[0]);
  return (
    <TopBar
      title={
        <>
          <Name />
          <SaveNote />
        </>
      }
    >
      <IconButton icon="undo" label={past ? `Undo: ${named(past.label)}` : "Undo"} keys="Ctrl Z" disabled={!past} onClick={desk.undo} />
      <IconButton
        icon="redo"
        label={future ? `Redo: ${named(future.label)}` : "Redo"}
        keys="Ctrl Shift Z"
        disabled={!future}
        onClick={desk.redo}
      />
      <Pick
        label="How lengths are shown"
        className="w-26 sm:w-32"
        value={style}
        options={styles}
        onChange={(s) => desk.edit(`Lengths as ${s}`, (p) => ({ ...p, style: s }))}
      />
      <ExportMenu desk={now} disabled={!ready} onPrint={onPrint} />
      <IconButton icon="command" label="Commands" keys="/" onClick={onCommands} />
      <IconButton icon="keys" label="Keys" keys="?" onClick={onHelp} className="hidden sm:grid" />
    </TopBar>
  );
}

/** The project's name: a field while it is written, left by Enter or Escape; no key reaches it otherwise. */
function Name() {
  const desk = useDesk();
  const name = useProject((p) => p.name);
  return (
    <>
      <h1 className="sr-only">{name || "Without a name"}</h1>
      <input
        aria-label="Project name"
        className="name-field"
        value={name}
        placeholder="Without a name"
        onChange={(e) => desk.edit("Name", (p) => ({ ...p, name: e.target.value }), "name")}
        onKeyDown={(e) => (e.key === "Enter" || e.key === "Escape") && e.currentTarget.blur()}
        onBlur={desk.settle}
      />
    </>
  );
}
