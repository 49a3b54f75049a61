import { buy } from "./buy";
import { cut } from "./cut";
import { frame } from "./frame";
import { joints } from "./joints";
import { type Lens, type LensId, stages } from "./lens";
import { log } from "./log";
import { size } from "./size";

/** The lenses that there are, in the order of work. */
export const lenses: Lens[] = [size, frame, joints, buy, cut, log].sort((a, b) => stages.indexOf(a.id) - stages.indexOf(b.id));

/** The lens of a page's address; the first where there is none of that name. */
export const lensOf = (name: string | undefined): LensId => (lenses.find((l) => l.id === name) ?? (lenses[0] as Lens)).id;
