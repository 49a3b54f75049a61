import { later } from "../../lib/later";
import type { Lens } from "../lens";
import { paint } from "./paint";

export const buy: Lens = {
  id: "buy",
  name: "Buy",
  question: "What do I buy?",
  icon: "buy",
  Sheet: later(() => import("./sheet")),
  paint,
  phone: "sheet",
};
