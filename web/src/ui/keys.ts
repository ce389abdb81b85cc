import { useHotkeys } from "react-hotkeys-hook";

/** Every key of the application, once: the help reads it as the views do. */
export const keys = {
  rig: { key: "r", shown: "r", does: "Rig" },
  knots: { key: "k", shown: "k", does: "Knots" },
  jobs: { key: "j", shown: "j", does: "Jobs" },
  log: { key: "l", shown: "l", does: "Log" },
  help: { key: "shift+?, ?", shown: "?", does: "This sheet" },
  sun: { key: "s", shown: "s", does: "Full sun on and off" },
  undo: { key: "mod+z", shown: "Ctrl z", does: "On a rig: take the last change back" },
  redo: { key: "mod+shift+z, mod+y", shown: "Ctrl Shift z", does: "On a rig: do it again" },
  back: { key: "left", shown: "←", does: "On a knot: step back. In the sentence: the phrase before" },
  on: { key: "right", shown: "→", does: "On a knot: step on. In the sentence: the next phrase" },
  views: { key: "1, 2, 3, 4", shown: "1 2 3 4", does: "On a knot: the four views" },
  play: { key: "p", shown: "p", does: "On a knot: play the tying, and pause" },
  attempt: { key: "a", shown: "a", does: "On a knot: record an attempt" },
} as const;

/** Does something when a key is pressed, unless somebody is typing or a sheet lies over the page. */
export function useKey(name: keyof typeof keys, does: (e: KeyboardEvent) => void) {
  useHotkeys(
    keys[name].key,
    (e) => {
      if (document.querySelector("[role=dialog][data-state=open]")) return;
      does(e);
    },
    // By the letter it makes, not by where it lies: keyboards differ.
    { preventDefault: true, useKey: true },
  );
}
