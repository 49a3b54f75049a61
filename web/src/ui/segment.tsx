import { ToggleGroup } from "radix-ui";
import type { Tally } from "../desk/mode-rules";

/** Cemented or dry, for one joint or many: which it is now, and a press to set it. */
export function HowHeld({ of, tally, onSet }: { of: string; tally: Tally; onSet: (mode: "cemented" | "slip") => void }) {
  const value = tally.dry === 0 ? "cemented" : tally.cemented === 0 ? "slip" : "";
  const mixed = value === "" ? `${tally.cemented} of ${tally.cemented + tally.dry} cemented` : undefined;
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      onValueChange={(v) => (v === "cemented" || v === "slip") && onSet(v)}
      className="segment"
      aria-label={`${of}: cemented or dry`}
      title={mixed}
    >
      <ToggleGroup.Item
        value="cemented"
        className="segment-item segment-cement"
        aria-label={`${of}: cement${mixed ? `, now ${mixed}` : ""}`}
      >
        <span className="collar-mark" aria-hidden="true" />
        <span className="segment-word">cement</span>
      </ToggleGroup.Item>
      <ToggleGroup.Item value="slip" className="segment-item" aria-label={`${of}: leave dry`}>
        <span className="ring-mark" aria-hidden="true" />
        <span className="segment-word">dry</span>
      </ToggleGroup.Item>
    </ToggleGroup.Root>
  );
}
