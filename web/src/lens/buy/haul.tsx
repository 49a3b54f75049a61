import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Refusal, api, ask } from "../../api/client";
import { same } from "../../desk/merge";
import { useDesk, useOpen, usePlan, useProject, useShop, useStyle } from "../../desk/use";
import { INCH, money, text, unitOf } from "../../lib/format";
import { readPrices } from "../../prices/read";

/** How far off a shop's cut may be, where nothing else is said: an eighth of an inch, in nanometres. */
const usualError = 3_175_000;

interface Typed {
  limit: string;
  error: string;
  free: string;
  price: string;
}

/** What the vehicle takes: longer sticks are cut in the shop. */
export function Haul() {
  const open = useOpen();
  const desk = useDesk();
  const shops = useShop((s) => s.haul);
  const plan = usePlan();
  const own = useProject((p) => p.sale?.haul);
  // work that is begun goes by what it was begun with; of several projects the shortest that one of them says counts for all
  const kept = !own && (plan.begun || open.several) && !same(plan.haul, shops);
  const haul = own ?? (kept ? plan.haul : shops);
  const whose = own
    ? `, for this ${open.several ? "purchase" : "project"}`
    : !kept
      ? ""
      : plan.begun
        ? ", as the work was begun with"
        : ", as one of the projects says";
  // to whole inches: either half of the longest stick on the list goes in, and nothing that is longer
  const longest = Math.max(0, ...plan.pipe.flatMap((t) => t.need.map((n) => n.length)));
  const half = Math.ceil(longest / 2 / INCH) * INCH;
  const style = useStyle();
  const id = useId();
  /** What one of several projects says, or what they were begun with, is not the shop's to change: it is said for what is bought here. */
  const change = (label: string, h: NonNullable<typeof haul>) =>
    kept && open.several
      ? desk.edit(`${label}, for this purchase`, (p) => ({ ...p, sale: { ...p.sale, haul: h } }))
      : void open.changeShop(label, (s) => ({ ...s, haul: h }));
  const [typed, setTyped] = useState<Typed>();
  const read = useMutation({
    mutationFn: async (t: Typed) => {
      const [limit, error] = await ask(api.POST("/api/lengths", { body: { texts: [t.limit, t.error || "0"], units: unitOf(style) } }));
      const [price] = await readPrices(t.price || "0").catch((e: Error) => {
        throw new Error("price", { cause: e });
      });
      if (!/^\d{0,3}$/.test(t.free.trim())) throw new Error("free");
      return { limit: limit ?? 0, error: error ?? 0, free: Number(t.free || "0"), price: price?.amount ?? 0 };
    },
    onSuccess: (h) => {
      setTyped(undefined);
      change(`The car takes ${text(h.limit, style)}`, h);
    },
  });
  const said = read.error instanceof Refusal ? read.error.places : {};
  const wrong: Partial<Record<keyof Typed, string>> = {
    limit: said["/texts/0"],
    error: said["/texts/1"],
    price: read.error?.message === "price" ? String((read.error.cause as Error)?.message ?? "") : undefined,
    free: read.error?.message === "free" ? "Write how many, like 2" : undefined,
  };
  const other = read.error && !Object.values(wrong).some(Boolean) ? "The server does not answer. Nothing was changed." : undefined;
  if (!typed)
    return (
      <p className="flex flex-wrap items-baseline gap-x-3 py-1 text-sm">
        {haul ? (
          <span>
            The car takes <strong>{text(haul.limit, style)}</strong>; a cut in the shop may be off by {text(haul.error ?? 0, style, 64)}
            {whose}
            {haul.price ? `, ${haul.free ?? 0} ${haul.free === 1 ? "is" : "are"} free, then ${money(haul.price)} each` : ""}.
          </span>
        ) : (
          <span className="text-ink-2">Sticks are carried as they are{whose}.</span>
        )}
        <button
          type="button"
          className="link"
          onClick={() =>
            setTyped({
              limit: haul ? text(haul.limit, style) : "",
              error: text(haul?.error ?? usualError, style, 64),
              free: haul?.free ? String(haul.free) : "",
              price: haul?.price ? (haul.price / 100).toFixed(2) : "",
            })
          }
        >
          {haul ? "Change it" : "Say what the car takes"}
        </button>
        {!haul && longest > 0 && (
          <button
            type="button"
            className="link"
            onClick={() => change(`Sticks are halved in the shop, to carry ${text(half, style)}`, { limit: half, error: usualError })}
          >
            Have them halved in the shop
          </button>
        )}
        {haul && !(kept && open.several) && (
          <button
            type="button"
            className="link"
            onClick={() =>
              own
                ? desk.edit("The car takes what it takes for every project", (p) => {
                    const { haul: _, ...sale } = p.sale ?? {};
                    const { sale: __, ...rest } = p;
                    return Object.keys(sale).length > 0 ? { ...rest, sale } : rest;
                  })
                : void open.changeShop("The car takes any length", ({ haul: _, ...rest }) => rest)
            }
          >
            {own && shops ? `${text(shops.limit, style)}, as for every project` : "Any length"}
          </button>
        )}
      </p>
    );
  const field = (key: keyof Typed, label: string, first = false) => (
    <label className="text-sm font-semibold" htmlFor={`${id}-${key}`}>
      {label}
      <input
        id={`${id}-${key}`}
        className="field mt-1 block w-full font-normal"
        // biome-ignore lint/a11y/noAutofocus: the form takes the place of the button that was pressed
        autoFocus={first}
        aria-invalid={Boolean(wrong[key])}
        aria-describedby={wrong[key] ? `${id}-${key}-why` : undefined}
        value={typed[key]}
        onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
      />
      {wrong[key] && (
        <span id={`${id}-${key}-why`} role="alert" className="block font-semibold text-bad">
          {wrong[key]}
        </span>
      )}
    </label>
  );
  return (
    <form
      className="grid gap-2 py-1"
      aria-label="What the car takes"
      onKeyDown={(e) => e.key === "Escape" && setTyped(undefined)}
      onSubmit={(e) => {
        e.preventDefault();
        read.mutate(typed);
      }}
    >
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {field("limit", "Longest it takes", true)}
        {field("error", "Shop cuts off by")}
        {field("free", "Cuts free")}
        {field("price", "Then, each")}
      </div>
      {other && (
        <p role="alert" className="text-sm font-semibold text-bad">
          {other}
        </p>
      )}
      <p className="flex gap-2">
        <button type="submit" className="btn btn-small" disabled={read.isPending || !typed.limit.trim()}>
          Set
        </button>
        <button type="button" className="btn btn-small" onClick={() => setTyped(undefined)}>
          Leave it
        </button>
      </p>
    </form>
  );
}
