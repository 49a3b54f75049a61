import type { Lens } from "../lens";
import { paint } from "./paint";
import SizeSheet from "./sheet";

export const size: Lens = { id: "size", name: "Size", question: "How big will it be?", icon: "size", Sheet: SizeSheet, paint };
