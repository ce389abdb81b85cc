import { useSyncExternalStore } from "react";
import { api, isSilence, type Schemas, unwrap } from "../api/client";

/*
 * Attempts on their way to the server. Each is kept on the device until the server has
 * it, and they go one after the other, in the order in which they were made; the key makes
 * one record of each however often it is sent. Taken back before it was sent, an attempt
 * never leaves; taken back afterwards, that is sent after it.
 */

type Sent = Omit<Schemas["PracticeAttempt"], "id" | "learner" | "received_at"> & { key: string };
type Item = { key: string } & ({ add: Sent } | { back: string });
type Box = {
  waiting: Item[];
  /** Ids of records by key, of the last so many. */
  ids: Record<string, number>;
};

const place = "oarweed-outbox";
const remembered = 400;
const again = 4000;

let box: Box | undefined;
let busy = false;
let later: ReturnType<typeof setTimeout> | undefined;
const told = new Set<() => void>();
let changed: () => void = () => undefined;

function now(): Box {
  if (!box) {
    try {
      box = { waiting: [], ids: {}, ...(JSON.parse(localStorage.getItem(place) ?? "{}") as Partial<Box>) };
    } catch {
      box = { waiting: [], ids: {} };
    }
  }
  return box;
}

function put(next: Box): void {
  box = next;
  try {
    localStorage.setItem(place, JSON.stringify(next));
  } catch {
    // A full or forbidden store: they go as long as the page is open.
  }
  for (const f of told) f();
}

/** Sends an attempt, now or when the server can be reached. */
export function post(attempt: Sent): void {
  const b = now();
  put({ ...b, waiting: [...b.waiting, { key: attempt.key, add: attempt }] });
  void flush();
}

/** Takes an attempt back by its key. */
export function takeBack(key: string): void {
  const b = now();
  // The first is perhaps on its way: it is taken back after it has arrived.
  const own = b.waiting.findIndex((x) => x.key === key && "add" in x);
  if (own > 0 || (own === 0 && !busy)) {
    put({ ...b, waiting: b.waiting.filter((x) => x.key !== key) });
    return;
  }
  put({ ...b, waiting: [...b.waiting, { key: `${key} back`, back: key }] });
  void flush();
}

async function send(item: Item): Promise<void> {
  if ("add" in item) {
    const saved = await unwrap(
      api.POST("/api/v1/attempts", { body: item.add as Schemas["PracticeAttempt"] }),
    );
    const b = now();
    const ids = Object.entries({ ...b.ids, [item.key]: saved.id }).slice(-remembered);
    put({ ...b, ids: Object.fromEntries(ids) });
    return;
  }
  const id = now().ids[item.back];
  if (id) await unwrap(api.DELETE("/api/v1/attempts/{id}", { params: { path: { id } } }));
}

/** Sends what waits. A refusal drops the one that is refused: it would never be taken. */
export async function flush(): Promise<void> {
  if (busy) return;
  busy = true;
  clearTimeout(later);
  try {
    for (let item = now().waiting[0]; item; item = now().waiting[0]) {
      try {
        await send(item);
      } catch (e) {
        if (isSilence(e)) {
          later = setTimeout(() => void flush(), again);
          return;
        }
      }
      const done = item.key;
      put({ ...now(), waiting: now().waiting.filter((x) => x.key !== done) });
      changed();
    }
  } finally {
    busy = false;
  }
}

/** How many wait to be sent. */
export function useWaiting(onChange: () => void): number {
  changed = onChange;
  return useSyncExternalStore(
    (f) => {
      told.add(f);
      const online = () => void flush();
      addEventListener("online", online);
      return () => {
        told.delete(f);
        removeEventListener("online", online);
      };
    },
    () => now().waiting.length,
  );
}

/** Forgets everything, for tests. */
export function emptyOutbox(): void {
  clearTimeout(later);
  busy = false;
  put({ waiting: [], ids: {} });
}
