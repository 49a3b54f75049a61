import { later } from "../../lib/later";
import type { Lens } from "../lens";
import { paint } from "./paint";

export const log: Lens = {
  id: "log",
  name: "Log",
  question: "What was done?",
  icon: "log",
  Sheet: later(() => import("./sheet")),
  paint,
  phone: "sheet",
};
