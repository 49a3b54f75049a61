import { useDesk, usePlan, useProject } from "../../desk/use";
import { text } from "../../lib/format";
import { sizeWords } from "../../lib/words";

/** The sticks that are bought besides those that the pieces take, each to be left out again. */
export function Spares() {
  const desk = useDesk();
  const plan = usePlan();
  const spare = useProject().spare ?? [];
  return spare.map((s, n) => {
    const name = `${Math.max(1, s.count ?? 0)} × ${text(s.length, "feet-inches")} of ${sizeWords(s.size ?? "")} pipe`;
    return (
      <p key={n} className="text-sm">
        <strong>{name}</strong>{" "}
        {plan.pipe.some((t) => t.size === s.size) ? "bought besides, as a spare." : "not bought: the frame has no pipe of that size."}{" "}
        <button
          type="button"
          className="link"
          aria-label={`Leave it out: ${name}`}
          onClick={() => desk.edit(`Buy no spare ${name}`, (p) => ({ ...p, spare: p.spare?.filter((_, i) => i !== n) }))}
        >
          leave it out
        </button>
      </p>
    );
  });
}
