import { useSyncExternalStore } from "react";

/** Whether the window is as the query says, and goes on being so. */
export const useMedia = (query: string) =>
  useSyncExternalStore(
    (f) => {
      const m = matchMedia(query);
      m.addEventListener("change", f);
      return () => m.removeEventListener("change", f);
    },
    () => matchMedia(query).matches,
  );
