import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useReducer, useRef } from "react";
import { useSearchParams } from "react-router";
import { useDebouncedCallback } from "use-debounce";
import type { Rig, SavedRig } from "../api/client";
import { q } from "../api/queries";
import { useKey } from "../ui/keys";
import { decode, encode, firstRig, sound } from "./document";
import { begin, keep, kept, type RigState, rigReducer, same, unsaved } from "./state";

/** What this device had last, unless the link holds something that it has not come from. */
function restored(link: Rig | undefined): RigState {
  const before = kept(sound);
  if (!link) return before ?? begin(firstRig);
  if (!before) return begin(link);
  if ([before.rig, ...before.past].some((rig) => same(rig, link))) return before;
  return rigReducer(before, { do: "open", rig: link });
}

/** Browsers allow few addresses a second, and the device's store is slow: both follow a moment later. */
const soon = 300;

/**
 * The rig on screen. It comes from the address if that holds one, else from this device, else
 * it is the one saved last, else a first one. The address follows it, so that a link holds it.
 */
export function useRig() {
  const [params, setParams] = useSearchParams();
  const text = params.get("rig");
  const linked = useMemo(() => (text ? decode(text) : undefined), [text]);
  const [state, dispatch] = useReducer(rigReducer, linked, restored);
  // Nothing of anybody's yet: what is saved comes up when it is known.
  const fresh = useRef(!linked && !kept(sound));
  const last = useQuery({ ...q.rigs(), enabled: fresh.current }).data?.[0];
  useEffect(() => {
    if (!fresh.current || !last) return;
    fresh.current = false;
    dispatch({ do: "begin", saved: last });
  }, [last]);

  const latest = useRef(state);
  const written = useRef(text);
  const write = useDebouncedCallback(() => {
    keep(latest.current);
    const now = encode(latest.current.rig);
    if (now === written.current) return;
    written.current = now;
    setParams({ rig: now }, { replace: true });
  }, soon);
  useEffect(() => {
    latest.current = state;
    if (!fresh.current) write();
  }, [state, write]);
  // Left before that, the device still keeps it.
  useEffect(() => {
    const leave = () => {
      if (!fresh.current) keep(latest.current);
    };
    addEventListener("pagehide", leave);
    return () => {
      removeEventListener("pagehide", leave);
      write.cancel();
      leave();
    };
  }, [write]);
  // A link followed brings another rig.
  useEffect(() => {
    if (text === written.current) return;
    written.current = text;
    if (linked) dispatch({ do: "open", rig: linked });
  }, [linked, text]);

  const acts = useMemo(
    () => ({
      change: (rig: Rig) => {
        fresh.current = false;
        dispatch({ do: "change", rig, at: performance.now() });
      },
      open: (rig: Rig, saved?: SavedRig) => dispatch({ do: "open", rig, saved }),
      saved: (saved: SavedRig) => dispatch({ do: "saved", saved }),
      undo: () => dispatch({ do: "undo" }),
      redo: () => dispatch({ do: "redo" }),
    }),
    [],
  );
  useKey("undo", acts.undo);
  useKey("redo", acts.redo);
  return {
    ...acts,
    rig: state.rig,
    from: state.saved,
    unsaved: unsaved(state),
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    broken: text !== null && !linked,
  };
}

export type RigActs = ReturnType<typeof useRig>;
