import { afterEach, expect, test } from "vitest";
import type { Shop } from "../api/client";
import { Unanswered } from "../lib/touch";
import { NoPrice, type Typed } from "./read";
import { dropPrice, keepPrice, sendPrices, waitingPrices } from "./waiting-prices";

const tee = { ware: "fitting", kind: "tee", size: "3/4" };
const cap = { ware: "fitting", kind: "cap", size: "3/4" };

/** A server that can be away; it reads whole numbers as cents. */
function server() {
  const s = {
    away: false,
    meanwhile: () => {},
    shop: { prices: { prices: [{ ...cap, amount: 5, typed: "5" }] } } as unknown as Shop,
    read: async (text: string): Promise<Typed[]> => {
      if (s.away) throw new Unanswered();
      if (!/^\d+$/.test(text)) throw new NoPrice("not an amount of money");
      return [{ amount: Number(text), typed: text }];
    },
    change: async (by: (shop: Shop) => Shop) => {
      s.meanwhile();
      if (s.away) return undefined;
      s.shop = by(s.shop);
      return s.shop;
    },
  };
  return s;
}

const texts = () => Object.values(waitingPrices.getState().all).map((w) => w.text);
const booked = (s: Shop) => s.prices.prices.map((p) => `${p.kind} ${p.amount}`).sort();

afterEach(() => waitingPrices.setState({ all: {} }));

test("a price waits until the server is there", async () => {
  const s = server();
  s.away = true;
  keepPrice(tee, "Price of a tee", "88");
  keepPrice(cap, "Price of a cap", "7");
  keepPrice(cap, "Price of a cap", "9");
  await sendPrices(s);
  expect(texts()).toEqual(["88", "9"]);
  s.away = false;
  await sendPrices(s);
  expect(texts()).toEqual([]);
  expect(booked(s.shop)).toEqual(["cap 9", "tee 88"]);
});

test("what is no price keeps nothing else back, and stays with its reason", async () => {
  const s = server();
  keepPrice(tee, "Price of a tee", "cheap");
  keepPrice(cap, "Price of a cap", "9");
  await sendPrices(s);
  expect(Object.values(waitingPrices.getState().all)).toMatchObject([{ text: "cheap", why: "not an amount of money" }]);
  expect(booked(s.shop)).toEqual(["cap 9"]);
  await sendPrices(s); // it is not asked again until it is typed again
  expect(texts()).toEqual(["cheap"]);
  keepPrice(tee, "Price of a tee", "90");
  await sendPrices(s);
  expect(booked(s.shop)).toEqual(["cap 9", "tee 90"]);
});

test("what is typed while another is on its way is sent, too", async () => {
  const s = server();
  keepPrice(tee, "Price of a tee", "88");
  s.meanwhile = () => keepPrice(tee, "Price of a tee", "89");
  await sendPrices(s);
  expect(texts()).toEqual(["89"]);
  s.meanwhile = () => {};
  await sendPrices(s);
  expect(booked(s.shop)).toEqual(["cap 5", "tee 89"]);
});

test("a server that goes away between reading and keeping loses nothing", async () => {
  const s = server();
  keepPrice(tee, "Price of a tee", "88");
  s.meanwhile = () => {
    s.away = true;
  };
  await sendPrices(s);
  expect(texts()).toEqual(["88"]);
  dropPrice(tee);
  expect(texts()).toEqual([]);
});
