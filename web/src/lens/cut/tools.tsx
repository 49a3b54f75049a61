import { RadioGroup } from "radix-ui";
import { useDesk, useOpen, usePlan, useProject, useShop, useStyle } from "../../desk/use";
import { Len, money, plural } from "../../lib/format";
import { useTools } from "../../ui/tool-pick";
import { Head } from "../../ui/ui";

/** The tool sets the kerf, and the kerf decides how many sticks to buy. */
export function Tools() {
  const desk = useDesk();
  const project = useProject();
  const plan = usePlan();
  const style = useStyle();
  const all = useTools();
  const begun = plan.pipe.some((t) => t.need.some((n) => n.got));
  const counted = new Map(plan.tools.map((t) => [t.id, t]));
  const open = useOpen();
  const taxed = useShop((s) => s.prices.taxRate > 0);
  const own = useShop((s) => s.tools.find((t) => t.id === project.tool));
  return (
    <section aria-labelledby="tool-head" className="no-print">
      <Head id="tool-head" title="The tool decides how many" />
      <p className="text-sm text-ink-2">
        Each with the whole bill: fittings and all else, {plan.haul?.price ? "cuts in the shop, " : ""}
        {taxed ? "tax" : "no tax set"}.
      </p>
      <RadioGroup.Root
        aria-labelledby="tool-head"
        className="grid"
        value={project.tool}
        onValueChange={(id) => desk.edit(`Cut with: ${all.find((t) => t.id === id)?.name ?? id}`, (p) => ({ ...p, tool: id }))}
      >
        {all.map((t) => {
          const c = counted.get(t.id);
          return (
            <RadioGroup.Item
              key={t.id}
              value={t.id}
              className="tool-row"
              aria-label={`Cut with: ${t.name}${c ? `, ${plural(c.sticks, "stick")}` : ""}`}
            >
              <span className="radio" aria-hidden="true" />
              <span className="flex-1 text-left">
                <strong className="font-semibold">{t.name}</strong>
                <span className="block text-sm text-ink-2">{t.note}</span>
              </span>
              <span className="w-16 text-right text-sm">
                {t.kerf ? (
                  <>
                    kerf <Len nm={t.kerf} style={style} step={32} />
                  </>
                ) : (
                  "no kerf"
                )}
              </span>
              <span className="w-28 text-right">
                {c ? (
                  <>
                    <strong className="block">{begun ? `${plural(c.sticks, "more stick")}` : plural(c.sticks, "stick")}</strong>
                    <span className="text-sm text-ink-2">{c.priced ? money(c.cost) : "no price"}</span>
                  </>
                ) : (
                  ""
                )}
              </span>
            </RadioGroup.Item>
          );
        })}
      </RadioGroup.Root>
      {own && (
        <label className="mt-1 flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={own.stop ?? false}
            onChange={(e) => {
              const stop = e.target.checked;
              void open.changeShop(stop ? `${own.name}: against a stop` : `${own.name}: to a mark`, (s) => ({
                ...s,
                tools: s.tools.map((t) => (t.id === own.id ? { ...t, stop } : t)),
              }));
            }}
          />
          Cut against a stop: cuts are off by less than by a mark, and a stick may keep less to spare.
        </label>
      )}
    </section>
  );
}
