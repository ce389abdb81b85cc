import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";

/**
 * The words after the "?" of the address, and a way to change some of them.
 * The router takes a new address over a moment later; changes made in between
 * build on one another and not on what the address still says.
 */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  const pending = useRef<URLSearchParams>(undefined);
  useEffect(() => {
    if (pending.current?.toString() === params.toString()) pending.current = undefined;
  }, [params]);
  const change = (words: Record<string, string>) => {
    const next = new URLSearchParams(pending.current ?? params);
    for (const [key, value] of Object.entries(words)) {
      if (value) next.set(key, value);
      else next.delete(key);
    }
    pending.current = next;
    setParams(next, { replace: true });
  };
  return [params, change] as const;
}
