import type { Lens } from "../lens";
import { paint } from "./paint";
import { BuySheet } from "./sheet";

export const buy: Lens = { id: "buy", name: "Buy", question: "What do I buy?", icon: "buy", Sheet: BuySheet, paint, phone: "sheet" };
