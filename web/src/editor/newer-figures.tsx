import { useMutation } from "@tanstack/react-query";
import { figuresOf } from "../desk/doing";
import { planOf } from "../desk/server";
import { useOpen, usePlan } from "../desk/use";
import { money, plural } from "../lib/format";

/** Which figures of the shop are others than those the work was begun with. */
export function NewerSays() {
  const { newer } = usePlan();
  return (
    <p>
      <strong>This goes by the figures it was begun with.</strong> The shop has others since:{" "}
      {newer.map((n) => `${n.what} ${n.now} (here ${n.kept})`).join("; ")}.
    </p>
  );
}

/** The shop has other figures than the work was begun with: what they would change, before they are taken. */
export default function NewerFigures() {
  const open = useOpen();
  const plan = usePlan();
  const see = useMutation({
    mutationFn: async () => {
      const desk = open.documents.current();
      if (!desk) throw new Error("not read yet");
      return (await planOf(desk, { of: open.id, newest: true })).plan;
    },
  });
  const then = see.data;
  const changes = then
    ? [
        ["sticks", plan.totals.sticks, then.totals.sticks] as const,
        ["fittings", plan.totals.fittings, then.totals.fittings] as const,
      ].flatMap(([what, was, is]) => (was === is ? [] : [`${was} → ${is} ${what}`]))
    : [];
  if (then && then.bill.total !== plan.bill.total) changes.push(`${money(plan.bill.total)} → ${money(then.bill.total)}`);
  const recut = then?.existing.filter((e) => e.fate === "recut").length ?? 0;
  const trim = then?.existing.filter((e) => e.fate === "trim").length ?? 0;
  if (recut > 0) changes.push(`${plural(recut, "piece")} cut anew`);
  if (trim > 0) changes.push(`${plural(trim, "piece")} to trim`);
  return (
    <section aria-label="Newer figures of the shop" className="rounded-md border-2 border-rule bg-paper-2 p-3 text-sm">
      <NewerSays />
      {then && <p role="status">With the new ones: {changes.join(", ") || "nothing of this plan changes"}.</p>}
      <p className="mt-2 flex flex-wrap gap-2">
        {!then && (
          <button type="button" className="btn btn-small" disabled={see.isPending} onClick={() => see.mutate()}>
            See what they would change
          </button>
        )}
        {then && (
          <>
            <button
              type="button"
              className="btn btn-small btn-main"
              onClick={() => {
                const shop = open.documents.current()?.shop;
                if (shop) open.say({ kind: "begun", figures: figuresOf(shop) });
                see.reset();
              }}
            >
              Take the new ones
            </button>
            <button type="button" className="btn btn-small" onClick={() => see.reset()}>
              Stay with these
            </button>
          </>
        )}
      </p>
      {see.error && (
        <p role="alert" className="font-semibold text-bad">
          The server does not answer.
        </p>
      )}
    </section>
  );
}
