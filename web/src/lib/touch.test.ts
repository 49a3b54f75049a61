import { afterEach, expect, test, vi } from "vitest";
import { askKeptAgain, keptAs, keptHeader, keptSince, touch } from "./touch";

afterEach(() => {
  vi.unstubAllGlobals();
  touch.setState({ kept: {}, lost: undefined, accepted: undefined });
});

test("what was read once, and kept, does not stand for ever", async () => {
  let away = true;
  vi.stubGlobal(
    "fetch",
    vi.fn(async (url: string) => {
      const r = new Response("{}", { headers: away ? { [keptHeader]: "1000" } : {} });
      Object.defineProperty(r, "url", { value: url });
      return r;
    }),
  );
  const queries = vi.fn(async () => {});
  keptAs("http://shop/api/about", 1000);
  keptAs("a project", 2000); // its page knows when it is new
  await askKeptAgain(queries);
  expect(queries).toHaveBeenCalledTimes(1);
  expect(keptSince(touch.getState())).toBe(1000);
  away = false;
  await askKeptAgain(queries);
  expect(queries).toHaveBeenCalledTimes(3); // once more after it is known that the server is there
  expect(touch.getState().kept).toEqual({ "a project": 2000 });
});

test("nothing is asked where nothing is kept", async () => {
  const queries = vi.fn(async () => {});
  await askKeptAgain(queries);
  expect(queries).not.toHaveBeenCalled();
});
