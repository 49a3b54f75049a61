import type { Lens } from "../lens";
import { paint } from "./paint";
import { CutSheet } from "./sheet";

export const cut: Lens = {
  id: "cut",
  name: "Cut",
  question: "Where do I cut?",
  icon: "cut",
  Sheet: CutSheet,
  paint,
  phone: "sheet",
  cautions: "open",
};
