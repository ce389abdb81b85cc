import { useEffect, useRef } from "react";

/** Between two tries to reach the server. */
const again = 1500;

/** Lines of an answer as they come; asked for again when the connection is lost. */
export function useStream(path: string, take: (text: string) => void): void {
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    const stop = new AbortController();
    const run = async () => {
      while (!stop.signal.aborted) {
        try {
          await lines(path, stop.signal, (text) => latest.current(text));
        } catch {
          // It is tried again; the strip of the connection says what is wrong.
        }
        await new Promise((f) => setTimeout(f, again));
      }
    };
    void run();
    return () => stop.abort();
  }, [path]);
}

async function lines(path: string, signal: AbortSignal, line: (text: string) => void): Promise<void> {
  const { body } = await fetch(new Request(new URL(path, location.origin), { signal }));
  const reader = body?.getReader();
  const text = new TextDecoder();
  for (let rest = ""; reader; ) {
    const { done, value } = await reader.read();
    if (done) return;
    const parts = (rest + text.decode(value, { stream: true })).split("\n");
    rest = parts.pop() ?? "";
    for (const p of parts) if (p) line(p);
  }
}
