import { useDesk, useProject } from "../../desk/use";
import { schools } from "../../lib/words";
import { Pick } from "../../ui/pick";

/** The way in which joints are cemented decides what is bought for it. */
export function CementSchool() {
  const desk = useDesk();
  const school = useProject((p) => p.school ?? "");
  return (
    <Pick
      label="Joints are cemented with"
      labelled
      value={school}
      options={schools}
      onChange={(v) => {
        const chosen = v as "" | "one-step";
        desk.edit(`Cement: ${schools.find(([x]) => x === v)?.[1]}`, (p) => ({ ...p, school: chosen || undefined }));
      }}
    />
  );
}

const everyKind = 10_000;
const rules = [0, everyKind, 20, 10] as const;
const words = (every: number) => (every === 0 ? "none" : every === everyKind ? "one of every kind" : `one for each ${every} begun`);

/** How many spare fittings and bolts are bought. */
export function SpareRule() {
  const desk = useDesk();
  const every = useProject((p) => p.spareEvery ?? 0);
  const all = rules.some((r) => r === every) ? rules : [...rules, every];
  return (
    <Pick
      label="Spare fittings and bolts"
      labelled
      value={String(every)}
      options={all.map((r) => [String(r), words(r)] as const)}
      onChange={(v) => desk.edit(`Spares: ${words(Number(v))}`, (p) => ({ ...p, spareEvery: Number(v) || undefined }))}
    />
  );
}
