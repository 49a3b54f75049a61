import { useOpen, usePlan, useShop } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { ExampleMark } from "../../ui/ui";
import { TaxRate } from "../../prices/tax-rate";

/** What it comes to: the lines by sort, tax, and the total. */
export function Total() {
  const open = useOpen();
  const shop = useShop();
  const plan = usePlan();
  const b = plan.bill;
  return (
    <div className="mt-4">
      <dl className="sum">
        <Sum label="Pipe" v={b.pipe} />
        <Sum label="Fittings" v={b.fittings} />
        {b.other > 0 && <Sum label="Cement, primer, hardware" v={b.other} />}
        <div>
          <dt>
            Tax <TaxRate rate={shop.prices.taxRate} onSet={(label, by) => void open.changeShop(label, by)} />
          </dt>
          <dd>{money(b.tax)}</dd>
        </div>
        <div className="sum-total">
          <dt>
            Total
            {b.example && <ExampleMark />}
          </dt>
          <dd>{money(b.total)}</dd>
        </div>
        {b.from < b.total && (
          <div>
            <dt>At the lower ends of the prices</dt>
            <dd>{money(b.from)}</dd>
          </div>
        )}
      </dl>
      {b.unpriced.length > 0 && (
        <p className="mt-2 text-sm font-semibold text-warn">
          {plural(b.unpriced.length, "line")} without a price, not in the total: {b.unpriced.join("; ")}
        </p>
      )}
      {b.example && <p className="mt-1 text-sm text-ink-2">Example prices are made up. Press one to put yours in.</p>}
    </div>
  );
}

function Sum({ label, v }: { label: string; v: number }) {
  return (
    <div>
      <dt>{label}</dt>
      <dd>{money(v)}</dd>
    </div>
  );
}
