import { useEffect, useRef, useState } from "react";
import { useOpen, useOpenState } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { Dialog } from "../../ui/dialog";

/** A change of prices or stick lengths that would change other projects: whom is it for? */
export function Scope() {
  const open = useOpen();
  const asks = useOpenState((s) => s.shopAsk);
  const [always, setAlways] = useState(false);
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (asks) main.current?.focus();
    else setAlways(false);
  }, [asks]);
  if (!asks) return null;
  const { effect: e } = asks;
  const changed = e?.changed ?? [];
  return (
    <Dialog
      title={asks.own ? `For every project, or for this ${open.several ? "purchase" : "one"}?` : "For every project?"}
      onClose={() => open.answerShop()}
    >
      <p className="mb-2">
        <strong>{asks.label}</strong>
        {e
          ? changed.length > 0
            ? ` changes ${plural(changed.length, "other project")}:`
            : " is looked at by other projects too."
          : ": what it changes in other projects cannot be said now, as the server does not answer."}
      </p>
      {changed.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and keys scroll it
        <ul className="mb-2 max-h-60 overflow-auto" tabIndex={0} aria-label="Projects that change">
          {changed.map((c) => (
            <li key={c.id} className="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1">
              <span className="font-semibold">{c.name || "Without a name"}</span>
              <span>
                {c.sticks !== c.sticksThen && `${c.sticks} → ${plural(c.sticksThen, "stick")}, `}
                {money(c.cost)} → {money(c.costThen)}
                {c.lacking ? <strong className="text-bad">, {plural(c.lacking, "piece")} that no stick holds</strong> : ""}
              </span>
            </li>
          ))}
        </ul>
      )}
      {e && e.kept > 0 && (
        <p className="mb-2 text-sm text-ink-2">
          {plural(e.kept, "project that is in work keeps", "projects that are in work keep")} the stick lengths{" "}
          {e.kept === 1 ? "it was" : "they were"} begun with.
        </p>
      )}
      {e && e.more > 0 && <p className="mb-2 text-sm text-ink-2">{plural(e.more, "project")} not changed lately were not looked at.</p>}
      <label className="mb-3 flex items-center gap-2">
        <input type="checkbox" checked={always} onChange={(e) => setAlways(e.target.checked)} />
        The same for all prices and sticks that I change next
      </label>
      <p className="flex flex-wrap gap-2">
        {asks.own && (
          <button ref={main} type="button" className="btn btn-main" onClick={() => open.answerShop("own", always)}>
            Only this {open.several ? "purchase" : "project"}
          </button>
        )}
        <button
          ref={asks.own ? undefined : main}
          type="button"
          className={`btn ${asks.own ? "" : "btn-main"}`}
          onClick={() => open.answerShop("all", always)}
        >
          Every project
        </button>
        <button type="button" className="btn" onClick={() => open.answerShop()}>
          Leave it as it was
        </button>
      </p>
    </Dialog>
  );
}

/** Whom all that is changed of prices and sticks is for, where that was said once for all. */
export function SaidOnce() {
  const open = useOpen();
  const whom = useOpenState((s) => s.shopFor);
  if (!whom) return null;
  return (
    <p className="flex flex-wrap gap-x-3 py-1 text-sm">
      <span>
        What you change of prices and sticks is for{" "}
        <strong>{whom === "all" ? "every project" : `this ${open.several ? "purchase" : "project"} only`}</strong>.
      </span>
      <button type="button" className="link" onClick={open.askShop}>
        Ask each time
      </button>
    </p>
  );
}
