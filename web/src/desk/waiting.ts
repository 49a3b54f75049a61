import { useEffect, useState } from "react";
import { Refusal, api, ask } from "../api/client";
import { shelfOf, shelvesWithEvents } from "./record";
import { sayDone, sayTogether } from "./server";

/** What waits on this device of one project, or of several that are bought together. */
export interface Waiting {
  /** The project, or several with commas between. */
  id: string;
  events: number;
  /** The server does not answer, it is refused, or the project is gone. */
  why: "silent" | "refused" | "gone";
}

/** Sends the events of one project, or of several that are bought together. */
async function send(id: string) {
  const of = id.includes(",") ? await ask(api.GET("/api/purchases/{of}", { params: { path: { of: id } } })) : undefined;
  const shelf = shelfOf(id);
  for (const batch of shelf.list()) {
    await (of ? sayTogether(of.project, batch.events) : sayDone(id, batch.events));
    shelf.drop(batch.key);
  }
}

/** Sends what waits on this device of projects whose page is closed, and gives what still waits. What the server refuses stays: the project's page says it. */
async function sendAll(): Promise<Waiting[]> {
  const left: Waiting[] = [];
  for (const id of shelvesWithEvents()) {
    try {
      await send(id);
    } catch (e) {
      const events = shelfOf(id)
        .list()
        .reduce((n, b) => n + b.events.length, 0);
      const why = !(e instanceof Refusal) ? "silent" : e.status === 404 ? "gone" : "refused";
      if (events > 0) left.push({ id, events, why });
    }
  }
  return left;
}

/** Lets go of what waits of a project that is gone. */
export function letGo(id: string) {
  const shelf = shelfOf(id);
  for (const b of shelf.list()) shelf.drop(b.key);
}

const again = 10_000; // ms

/** What waits on this device, of projects that are not open; meanwhile it is sent. */
export function useWaiting(): [left: Waiting[], look: () => void] {
  const [left, setLeft] = useState<Waiting[]>([]);
  const [look, lookAgain] = useState(0);
  useEffect(() => {
    let over = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const go = async () => {
      clearTimeout(timer);
      const still = await sendAll();
      if (over) return;
      setLeft(still);
      if (still.length > 0) timer = setTimeout(() => void go(), again);
    };
    const now = () => void go();
    addEventListener("online", now);
    void go();
    return () => {
      over = true;
      clearTimeout(timer);
      removeEventListener("online", now);
    };
  }, [look]);
  return [left, () => lookAgain((n) => n + 1)];
}
