import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Refusal, type Shop, type StoredShop, api, ask } from "../api/client";
import { follow } from "../desk/follow";
import { mergeShops } from "../desk/history";
import { deviceKeeper } from "../desk/kept";
import { own, standsFor } from "../desk/server";
import { useWaiting } from "../desk/waiting";

const key = ["shop"];

/**
 * The shop as it is stored, and how to change it: a change that another window was quicker with is made on theirs. It and the
 * page's own query are asked for again whenever anything changes anywhere.
 */
export function useStoredShop(page: "prices" | "rack") {
  const client = useQueryClient();
  useEffect(
    () =>
      follow("", () => {
        void client.invalidateQueries({ queryKey: [page] });
        void client.invalidateQueries({ queryKey: key });
      }),
    [client, page],
  );
  const shop = useQuery({ queryKey: key, queryFn: async () => withKept(await ask(api.GET("/api/shop"))), refetchOnMount: "always" });
  // what was typed while the server was away goes out by itself
  const [waiting, look] = useWaiting("");
  const waits = waiting.length > 0;
  useEffect(() => {
    if (!waits) void client.invalidateQueries();
  }, [client, waits]);
  const save = useMutation({
    scope: { id: "shop" },
    mutationFn: async (change: (s: Shop) => Shop) => {
      const stored = await changeStored(change);
      if (stored) return stored;
      const kept = await keepChange(client.getQueryData<StoredShop>(key), change);
      look();
      return kept;
    },
    onSuccess: (s) => {
      client.setQueryData(key, s);
      void client.invalidateQueries({ queryKey: [page] });
    },
  });
  const [undone, setUndone] = useState<{ label: string; before: Shop; after: Shop }>();
  const change = (label: string, by: (s: Shop) => Shop) => {
    let before: Shop | undefined;
    save.mutate(
      (s) => {
        before = s;
        return by(s);
      },
      { onSuccess: ({ shop: after }) => before && setUndone({ label, before, after }) },
    );
  };
  // what others changed in the meantime stays
  const undo = () => {
    if (undone) save.mutate((now) => mergeShops(undone.after, undone.before, now), { onSuccess: () => setUndone(undefined) });
  };
  return { shop, save, change, undone: undone?.label, undo, waits };
}

/** Changes the shop as it is stored; one that another window was quicker with is made on theirs. Nothing where nobody answers. */
export async function changeStored(change: (s: Shop) => Shop): Promise<StoredShop | undefined> {
  for (let tries = 0; ; tries++) {
    const now = await ask(own(api.GET("/api/shop"))).catch((e: unknown) => {
      if (e instanceof Refusal) throw e;
      return undefined;
    });
    if (!now) return undefined;
    const shop = change(now.shop);
    try {
      const { revision } = await ask(api.PUT("/api/shop", { body: { revision: now.revision, shop } }));
      return { revision, shop };
    } catch (e) {
      if (!(e instanceof Refusal && e.status === 409) || tries > 4) throw e;
    }
  }
}

/** Keeps a change on this device, on top of those that are kept already. */
async function keepChange(seen: StoredShop | undefined, change: (s: Shop) => Shop): Promise<StoredShop> {
  const at = deviceKeeper();
  const had = await at.get("");
  const base = had?.mine?.shop ? had.shop : seen && { doc: seen.shop, revision: seen.revision };
  if (!base) throw new Error("The server does not answer");
  const shop = change(had?.mine?.shop ?? base.doc);
  await at.set("", { at: Date.now(), project: { doc: standsFor(""), revision: 0 }, shop: base, mine: { shop } });
  return { revision: base.revision, shop };
}

/** The shop with what was typed on this device and the server does not have yet. */
async function withKept(s: StoredShop): Promise<StoredShop> {
  const had = await deviceKeeper().get("");
  return had?.mine?.shop ? { ...s, shop: mergeShops(had.shop.doc, had.mine.shop, s.shop) } : s;
}
