import { type Style, unitOf } from "../lib/format";
import { Unanswered } from "../lib/touch";
import { Refusal, api, ask } from "./client";

/** Reads lengths as people write them, in nanometres. What is none is thrown, in words that say how to write it like an example; [Unanswered] where the server does not say. */
export async function readLengths(texts: string[], style: Style, like: string): Promise<number[]> {
  try {
    return await ask(api.POST("/api/lengths", { body: { texts, units: unitOf(style), like } }));
  } catch (e) {
    if (!(e instanceof Refusal)) throw new Unanswered();
    throw new Error(Object.values(e.places)[0] ?? e.message);
  }
}

/** The lengths in a text, between commas. */
export const partsOf = (text: string) => text.split(/[,;]/).map((t) => t.trim());
