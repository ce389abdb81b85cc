import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { emptyOutbox, flush, post, takeBack } from "./outbox";

type Seen = { method: string; path: string; key?: string };
let seen: Seen[] = [];
let net = true;
let id = 0;

beforeEach(() => {
  seen = [];
  net = true;
  emptyOutbox();
  vi.stubGlobal("fetch", async (request: Request) => {
    if (!net) throw new TypeError("no net");
    const body =
      request.method === "POST" ? ((await request.json()) as { key: string; knot: string }) : undefined;
    seen.push({ method: request.method, path: new URL(request.url).pathname, key: body?.key });
    if (body?.knot === "refused")
      return new Response(JSON.stringify({ title: "No", status: 422, detail: "No such knot." }), {
        status: 422,
      });
    id++;
    return request.method === "DELETE"
      ? new Response(null, { status: 204 })
      : new Response(JSON.stringify({ id }), {
          status: 201,
          headers: { "Content-Type": "application/json" },
        });
  });
});
afterEach(() => {
  emptyOutbox();
  vi.unstubAllGlobals();
});

const attempt = (key: string, knot = "bowline") =>
  ({ key, learner_id: 1, knot, outcome: "right", conditions: "dry" }) as Parameters<typeof post>[0];
const waiting = () =>
  (JSON.parse(localStorage.getItem("oarweed-outbox") ?? "{}") as { waiting: unknown[] }).waiting.length;

it("keeps touches while the net is down, and sends them once, in order, when it is back", async () => {
  net = false;
  for (const key of ["a", "b", "c"]) post(attempt(key));
  await vi.waitFor(() => expect(waiting()).toBe(3));
  expect(seen).toEqual([]);
  net = true;
  await vi.waitFor(async () => {
    await flush();
    expect(waiting()).toBe(0);
  });
  await flush();
  expect(seen.map((s) => s.key)).toEqual(["a", "b", "c"]);
});

it("never sends what was taken back before it left, and takes back afterwards what had left", async () => {
  net = false;
  post(attempt("a"));
  post(attempt("b"));
  await flush();
  takeBack("b");
  net = true;
  await vi.waitFor(async () => {
    await flush();
    expect(waiting()).toBe(0);
  });
  expect(seen.map((s) => s.key)).toEqual(["a"]);
  takeBack("a");
  await vi.waitFor(() =>
    expect(seen.at(-1)).toEqual({ method: "DELETE", path: `/api/v1/attempts/${id - 1}` }),
  );
});

it("is not held up by one that the server refuses", async () => {
  post(attempt("a", "refused"));
  post(attempt("b"));
  await vi.waitFor(() => expect(waiting()).toBe(0));
  expect(seen.map((s) => s.key)).toEqual(["a", "b"]);
});
