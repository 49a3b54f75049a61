import type { QueryClient } from "@tanstack/react-query";
import { type Project, Refusal, api, ask } from "../api/client";
import { fixStored } from "../desk/elsewhere";
import { follow } from "../desk/follow";
import { merge } from "../desk/merge";
import { type Server, own, planOf, sayTogether, serverOf, standsFor } from "../desk/server";

/** What several projects are called where one has its id: in the address, and where events wait on this device. */
export const idOf = (ids: string[]) => [...new Set(ids)].sort().join(",");

/**
 * Several projects as one that is open: their plan is that of all, what is done goes into the record of each. What is chosen
 * here, the tool and the like, is kept for these projects, and changes none of them.
 */
export function togetherServer(client: QueryClient, of: string): Server {
  let now: { doc: Project; revision: number } | undefined;
  const path = { params: { path: { of } } };
  const read = async () => {
    const { revision, project } = await ask(own(api.GET("/api/purchases/{of}", path)));
    now = { doc: project, revision };
    return now;
  };
  const write = async (revision: number, project: Project) =>
    (await ask(api.PUT("/api/purchases/{of}", { ...path, body: { revision, project } }))).revision;
  return {
    ...serverOf(client, of),
    project: read,
    saveProject: async (revision, mine) => {
      const base = now?.doc ?? mine;
      try {
        const saved = await write(revision, mine);
        now = { doc: mine, revision: saved };
        return saved;
      } catch (e) {
        if (!(e instanceof Refusal && e.status === 409)) throw e;
        // another window was quicker: both in one, and what both chose is as it was chosen last
        const theirs = await read();
        await write(theirs.revision, merge(base, mine, theirs.doc).value).catch((again) => {
          throw new Error("another window is saving", { cause: again }); // it is tried again
        });
        return theirs.revision; // older than what was saved, so that it is read
      }
    },
    edit: () => Promise.reject(new Refusal(422, { status: 422, title: "Change a project by itself: here several are bought." })),
    plan: (d, o) => planOf(d, { signal: o.signal }),
    say: (events) => sayTogether(now?.doc ?? standsFor(of), events),
    fixIn: (frame, fix) => fixStored(now?.doc.together?.of[frame] ?? "", fix),
    putBack: async () => undefined,
    // whatever changes in one of them may change what is bought
    follow: (heard) => follow(of, (n) => heard({ ...n, events: Number.MAX_SAFE_INTEGER })),
  };
}
