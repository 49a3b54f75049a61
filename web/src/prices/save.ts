import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Refusal, type Shop, type StoredShop, api, ask } from "../api/client";
import { follow } from "../desk/follow";
import { mergeShops } from "../desk/history";

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
  const shop = useQuery({ queryKey: key, queryFn: () => ask(api.GET("/api/shop")), refetchOnMount: "always" });
  const save = useMutation({
    scope: { id: "shop" },
    mutationFn: async (change: (s: Shop) => Shop) => {
      for (let tries = 0; ; tries++) {
        const now = await ask(api.GET("/api/shop"));
        const after = change(now.shop);
        try {
          const { revision } = await ask(api.PUT("/api/shop", { body: { revision: now.revision, shop: after } }));
          return { revision, shop: after } as StoredShop;
        } catch (e) {
          if (!(e instanceof Refusal && e.status === 409) || tries > 4) throw e;
        }
      }
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
  return { shop, save, change, undone: undone?.label, undo };
}
