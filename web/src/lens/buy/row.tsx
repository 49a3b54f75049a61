import { useId, useState } from "react";
import type { Line, Plan } from "../../api/client";
import { buying, lotsOf, takingBack, withOutgoing } from "../../desk/doing";
import { shopFor } from "../../desk/scope";
import { useDesk, useFrame, useOpen, useOpenState, usePicked, usePlan, useProject, useShop } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { recordTakes } from "../../lib/words";
import { specKey, specOf } from "../../lib/spec";
import { PriceField } from "../../prices/price-field";
import { pricesOf, withPrices } from "../../prices/read";
import { InPlace } from "../../ui/in-place";
import { Picture, Ware as WarePicture } from "../../ui/picture";
import { Tick } from "../../ui/tick";
import { type Ware, nameOf } from "./list";
import { NotHere } from "./not-here";

/** One line of the list: a box to tick, what it is, what it is for; opened, all that can be said of it in the aisle. */
export function WareRow({ ware: w }: { ware: Ware }) {
  const open = useOpen();
  const desk = useDesk();
  const plan = usePlan();
  const optional = useProject((p) => p.terms?.optional) ?? [];
  const frame = useFrame();
  const [picked, onPick] = usePicked();
  const out = useOpenState((s) => s.outgoing.events);
  const shop = shopFor(useShop(), useProject());
  const [opened, setOpened] = useState(false);
  const id = useId();
  const l = w.line;
  const done = withOutgoing(out);
  const got = done.got(l);
  const home = Math.min(done.home(l), l.count);
  const lots = lotsOf(l, out);
  const all = got >= l.count;
  // all that is in the cart, also beyond what is needed
  const cart = lots.reduce((n, x) => n + (x.home ? 0 : x.count), 0);
  const need = l.count - home;
  const back = takingBack(lots, cart);
  const first = frame.joints.find((j) => l.ware === "fitting" && j.kind === l.kind && j.size === l.size);
  const pipe =
    picked?.is === "pipe" || picked?.is === "letter" ? frame.pipes.find((p) => p.pipe === picked.id || p.letter === picked.id) : undefined;
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  const shownHere = l.ware === "pipe" ? pipe?.size === l.size : l.ware === "fitting" && joint?.kind === l.kind && joint?.size === l.size;
  const name = nameOf(l);
  const service = l.ware === "service";
  const more = (n: number) => open.did(...buying(plan, l, n, out));
  const fewer = (n: number) => open.say(...takingBack(lots, n));
  return (
    <li className={`ware-row ${all ? "is-done" : ""} ${shownHere ? "is-lit" : ""}`}>
      <div className="ware">
        <Tick
          label={`${l.count} × ${name} in the cart`}
          done={all}
          onTick={() => (all ? fewer(cart) : more(l.count - got))}
          fixed={all && back.length === 0}
        />
        {l.ware === "fitting" ? (
          <button
            type="button"
            className="ware-picture"
            aria-label={`Show number ${w.number}, ${name}, on the frame`}
            onClick={() => onPick(first && !shownHere ? { is: "joint", id: first.id } : undefined)}
          >
            <Picture kind={l.kind ?? ""} />
            <span className="ware-number">{w.number}</span>
          </button>
        ) : (
          <span className="ware-picture">
            <WarePicture ware={l.ware} />
          </span>
        )}
        <span className="ware-count">{l.count}×</span>
        <button type="button" className="ware-name" aria-expanded={opened} aria-controls={id} onClick={() => setOpened(!opened)}>
          <strong>{name}</strong>
          <span className="ware-for">{noteOf(l, plan, cart, home)}</span>
        </button>
        <span className="ware-price">
          {service ? (
            money(l.each)
          ) : (
            <PriceField
              of={l}
              label={`Price of ${l.label}`}
              prices={pricesOf(shop, l)}
              onSet={(read, text) => void open.changeShop(`Price of ${l.label}: ${text}`, (s) => withPrices(s, l, read))}
            />
          )}
          <strong className="block">
            {l.priced ? (l.from < l.amount ? `${money(l.from)}–${money(l.amount)}` : money(l.amount)) : "—"}
          </strong>
        </span>
      </div>
      {opened && (
        <div id={id} className="ware-more">
          {!service && (
            <dl className="ware-facts">
              <div>
                <dt>In the cart</dt>
                <dd className="flex items-center gap-1">
                  <button
                    type="button"
                    className="step-btn"
                    aria-label={`One ${name} less in the cart`}
                    disabled={takingBack(lots, 1).length === 0}
                    onClick={() => fewer(1)}
                  >
                    −
                  </button>
                  <InPlace
                    label={`${name} in the cart`}
                    shown={
                      <strong className="min-w-16 text-center">{cart > need ? `${cart}, ${need} needed` : `${cart} of ${need}`}</strong>
                    }
                    start={String(cart)}
                    className="w-16"
                    take={(text) => {
                      const n = howMany(text, l, cart);
                      if (n > cart) more(n - cart);
                      else fewer(cart - n);
                    }}
                  />
                  <button type="button" className="step-btn" aria-label={`One ${name} more in the cart`} onClick={() => more(1)}>
                    +
                  </button>
                </dd>
              </div>
              <div>
                <dt>At home already</dt>
                <dd>
                  <InPlace
                    label={`${name} at home`}
                    shown={<strong>{done.home(l) || "none"}</strong>}
                    start={String(done.home(l))}
                    className="w-16"
                    take={(text) => {
                      const was = done.home(l);
                      const n = howMany(text, l, was);
                      if (n > was) open.say(...buying(plan, l, n - was, out, true));
                      else open.say(...takingBack(lots, was - n, true));
                    }}
                  />
                </dd>
              </div>
            </dl>
          )}
          {!service && (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={optional.some((s) => specKey(s) === specKey(l))}
                onChange={(e) => {
                  const on = e.target.checked;
                  const others = optional.filter((s) => specKey(s) !== specKey(l));
                  desk.edit(on ? `${name} could be left out` : `${name} is needed`, (p) => ({
                    ...p,
                    terms: { ...p.terms, optional: on ? [...others, specOf(l)] : others } as typeof p.terms,
                  }));
                }}
              />
              It could be left out
            </label>
          )}
          {l.ware === "fitting" && <NotHere line={l} />}
          <p>{[l.for ? `For ${l.for}.` : "", l.rule ? `${capital(l.rule)}.` : "", packWords(l)].filter(Boolean).join(" ")}</p>
          {(l.source || l.date) && l.priced && !l.example && (
            <p className="text-ink-2">
              Price {l.source && l.source !== "own" ? `from ${l.source}` : "as you typed it"}
              {l.date && `, ${l.date}`}.
            </p>
          )}
          {!service && (
            <p className="text-ink-2">
              A price is read as one writes it: .88, 98c, 3 for 20, 7.98-8.49. Singly and by the pack: .98; 10 for 6.98.
            </p>
          )}
        </div>
      )}
    </li>
  );
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** How packs make up a count. */
function packWords(l: Line): string {
  if (!l.packs?.length) return "";
  const words = l.packs.map((p) => ((p.price.pack ?? 1) > 1 ? `${plural(p.count, "pack")} of ${p.price.pack}` : `${p.count} singly`));
  return `${words.join(" and ")}${l.over ? `, ${l.over} left over` : ""}.`;
}

/** What to know about a line at the shelf, in a few words. */
function noteOf(l: Line, plan: Plan, cart: number, home: number): string {
  const words: string[] = [];
  const need = l.count - home;
  if (home > 0) words.push(home >= l.count ? "all at home" : `${home} at home, ${need} to buy`);
  if (cart > need) words.push(`${cart} in the cart, ${need} needed`);
  else if (cart > 0 && cart < need) words.push(`${cart} of ${need} in the cart`);
  if (words.length > 0) return words.join("; ");
  if (l.unit === "piece") return l.rule;
  const some = [l.for ?? ""];
  if (l.ware === "hardware" || l.ware === "service") some.push(l.rule);
  if (l.ware === "fitting") {
    if (l.kind?.startsWith("side-outlet") || l.kind === "six-way") some.push("furniture grade: seldom on the shelf, order ahead");
    if (plan.frames.length === 1 && !l.for) some.push("");
  }
  if (l.spare) some.push(`${plural(l.spare, "spare")} among them`);
  if (l.packs?.length) some.push(packWords(l));
  return some.filter(Boolean).join("; ");
}

/** Reads how many there are of a thing of which there were some; no more come at once than a record takes. */
function howMany(text: string, { ware }: { ware: string }, was: number): number {
  const n = Number(text);
  if (!/^\d{1,5}$/.test(text)) throw new Error("Write how many, like 8");
  const most = ware === "pipe" ? recordTakes.sticks : recordTakes.parts;
  if (n - was > most) throw new Error(`At most ${most} more at once`);
  return n;
}
