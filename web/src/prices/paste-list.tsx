import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { type Price, type PriceRow, Refusal, type Shop, api, ask } from "../api/client";
import { nameOf } from "../lens/buy/list";
import { plural } from "../lib/format";
import { byThing, specKey } from "../lib/spec";
import { Icon } from "../ui/icons";
import { priceWords } from "./price-field";
import { FileButton, listFiles } from "../ui/file-button";

/** Many prices at once: pasted, typed a line each, or opened from a file. Every line is shown as it was read. */
export function PasteList({ onTake }: { onTake: (label: string, by: (s: Shop) => Shop) => void }) {
  const [opened, setOpened] = useState(false);
  const [text, setText] = useState("");
  const [source, setSource] = useState("");
  const id = useId();
  const read = useMutation({
    mutationFn: (t: string) => ask(api.POST("/api/prices/list", { body: { text: t, source: source.trim() || undefined } })),
  });
  const rows = read.data ?? [];
  const good = rows.filter((r): r is PriceRow & { price: Price } => r.price !== undefined);
  const bad = rows.filter((r) => r.fault);
  const take = () => {
    const by = byThing(good.map((r) => r.price));
    onTake(`${plural(by.size, "part has", "parts have")} new prices`, (s) => ({
      ...s,
      prices: {
        ...s.prices,
        prices: [...s.prices.prices.filter((p) => !by.has(specKey(p))), ...[...by.values()].flat()],
      },
    }));
    // what could not be read stays, to be mended, under the names of its columns
    const all = text.split("\n");
    const head = all.findIndex((t) => t.trim());
    const named = head >= 0 && !rows.some((r) => r.line === head + 1) && bad.length > 0 ? [all[head] ?? ""] : [];
    setText([...named, ...bad.map((r) => all[r.line - 1] ?? r.text)].join("\n"));
    read.reset();
    if (bad.length === 0) setOpened(false);
  };
  // a list of another shop: it is compared with, and changes no price here
  const asShop = () => {
    const name = source.trim();
    const offers = good.map(({ price: { typed: _t, example: _e, source: _s, date: _d, ...o } }) => o);
    onTake(`The list of ${name} is kept: ${plural(offers.length, "price")}`, (s) => ({
      ...s,
      suppliers: [
        ...(s.suppliers ?? []).filter((x) => x.name !== name),
        { id: `list-${name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}`, name, date: good[0]?.price.date, offers },
      ],
    }));
    setText(bad.map((r) => r.text).join("\n"));
    read.reset();
  };
  if (!opened)
    return (
      <p>
        <button type="button" className="btn" onClick={() => setOpened(true)}>
          <Icon name="plus" size={18} /> Paste or open a list
        </button>
      </p>
    );
  return (
    <section aria-label="A list of prices" className="grid gap-3 rounded-md border border-rule bg-paper p-4">
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-sm font-semibold" htmlFor={`${id}-s`}>
          Where they are from
          <input
            id={`${id}-s`}
            className="field mt-1 block w-64 font-normal"
            placeholder="the shop, a receipt"
            value={source}
            onChange={(e) => setSource(e.target.value)}
          />
        </label>
        <FileButton
          label="A file of prices"
          accept={listFiles}
          onFile={async (f) => {
            const t = await f.text();
            setText(t);
            if (!source) setSource(f.name.replace(/\.\w+$/, ""));
            read.mutate(t);
          }}
        />
        <button type="button" className="btn" onClick={() => setOpened(false)}>
          Close
        </button>
      </div>
      <label className="font-semibold" htmlFor={`${id}-l`}>
        A thing and its price a line, or CSV with names over its columns
        <textarea
          id={`${id}-l`}
          className="field mt-1 h-40 py-2 font-[inherit] font-normal"
          spellCheck={false}
          placeholder={"3/4 tee .88\n3/4 pipe 10 ft 4.98\n3/4 coupling 10 for 6.98\ncement 8 oz 7.98-8.49"}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            read.reset();
          }}
        />
      </label>
      <p className="flex flex-wrap items-center gap-3">
        <button type="button" className="btn" disabled={!text.trim() || read.isPending} onClick={() => read.mutate(text)}>
          Read it
        </button>
        {good.length > 0 && (
          <button type="button" className="btn btn-main" onClick={take}>
            Take {plural(good.length, "price")}
          </button>
        )}
        {good.length > 0 && source.trim() && (
          <button type="button" className="btn" onClick={asShop}>
            Keep as the list of {source.trim()}, to compare
          </button>
        )}
        {bad.length > 0 && (
          <strong className="text-bad">{plural(bad.length, "line")} cannot be read; mend them here, or leave them.</strong>
        )}
        {read.data && rows.length === 0 && <span className="text-ink-2">There is no price in it.</span>}
      </p>
      {read.error && (
        <p role="alert" className="font-semibold text-bad">
          {read.error instanceof Refusal ? read.error.message : "The server does not answer; the list is kept here."}
        </p>
      )}
      {rows.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and keys scroll it
        <ul aria-label="As it was read" className="max-h-96 overflow-auto text-sm" tabIndex={0}>
          {[...bad, ...good].map((r) => (
            <li key={`${r.line} ${r.price?.pack ?? 1}`} className="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1">
              <span className="text-ink-2">
                line {r.line}: {r.text}
              </span>
              {r.price ? (
                <strong>
                  {nameOf({ ...r.price, label: r.label ?? "" })}, {priceWords(r.price)}
                </strong>
              ) : (
                <strong className="text-bad">
                  {r.fault?.what}; {r.fault?.hint}
                </strong>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
