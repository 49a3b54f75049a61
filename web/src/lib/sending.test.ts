import { expect, it } from "vitest";
import { Sending } from "./sending";

it("leaving a field right after Enter sends nothing twice", async () => {
  const s = new Sending();
  const sent: string[] = [];
  let done = (_: string) => undefined as undefined;
  const call = (t: string) => {
    sent.push(t);
    return new Promise<string>((go) => {
      done = (v) => void go(v) as undefined;
    });
  };
  const enter = s.send("46", call);
  const blur = s.send("46", call);
  expect(await blur).toBeUndefined();
  const other = s.send("47", async (t) => {
    sent.push(t);
    return t;
  });
  expect(await other).toBe("47");
  done("made");
  expect(await enter).toBe("made");
  expect(sent).toEqual(["46", "47"]);
  expect(await s.send("46", async () => "again")).toBe("again");
});
