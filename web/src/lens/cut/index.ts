import { later } from "../../lib/later";
import type { Lens } from "../lens";
import { paint } from "./paint";

export const cut: Lens = {
  id: "cut",
  name: "Cut",
  question: "Where do I cut?",
  icon: "cut",
  Sheet: later(() => import("./sheet")),
  paint,
  phone: "sheet",
  cautions: "open",
};
