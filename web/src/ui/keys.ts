import { useHotkeys } from "react-hotkeys-hook";
import { prefs } from "./prefs";

/** Every key of the application, once: the help reads it as the views do. */
export const keys = {
  rig: { key: "r", shown: "r", does: "Rig" },
  knots: { key: "k", shown: "k", does: "Knots" },
  jobs: { key: "j", shown: "j", does: "Jobs" },
  teach: { key: "t", shown: "t", does: "Teach" },
  log: { key: "l", shown: "l", does: "Log" },
  bench: { key: "b", shown: "b", does: "Bench" },
  lines: { key: "i", shown: "i", does: "Lines" },
  find: { key: "slash", shown: "/", does: "Find a knot, a task, a job, a fault" },
  name: { key: "n", shown: "n", does: "Name what you tied" },
  help: { key: "shift+?, ?", shown: "?", does: "This sheet" },
  sun: { key: "s", shown: "s", does: "Full sun on and off" },
  undo: { key: "mod+z", shown: "Ctrl z", does: "On a rig: take the last change back" },
  redo: { key: "mod+shift+z, mod+y", shown: "Ctrl Shift z", does: "On a rig: do it again" },
  back: { key: "left", shown: "←", does: "On a knot: step back. In the sentence: the phrase before" },
  on: { key: "right", shown: "→", does: "On a knot: step on. In the sentence: the next phrase" },
  views: {
    key: "1, 2, 3, 4",
    shown: "1 2 3 4",
    does: "On a knot: seen as you tie it, facing you, turned round; the other hand",
  },
  presenter: { key: "pagedown, pageup, space", shown: "Page ↑ ↓", does: "On Show: a presenter's keys" },
  leave: { key: "escape", shown: "Esc", does: "On Show: leave" },
  play: { key: "p", shown: "p", does: "On a knot: play the tying, and pause" },
  pull: { key: "x", shown: "x", does: "On the bench: start and stop a pull" },
  zero: { key: "z", shown: "z", does: "On the bench: set the cell to zero" },
  slip: { key: "m", shown: "m", does: "On the bench: mark a slip in the pull" },
  attempt: { key: "a", shown: "a", does: "On a knot: record an attempt" },
} as const;

/** Does something when a key is pressed, unless somebody is typing or a sheet lies over the page. */
export function useKey(name: keyof typeof keys, does: (e: KeyboardEvent) => void) {
  useHotkeys(
    keys[name].key,
    (e) => {
      if (document.querySelector("[role=dialog][data-state=open]")) return;
      // A letter alone can be switched off, and never acts on a control that has the keyboard.
      const lone = /^[a-z0-9?]$/i.test(e.key) && !e.ctrlKey && !e.metaKey;
      if (lone && (!prefs().letters || document.activeElement?.closest("button, a, summary, [role=option]")))
        return;
      if (e.key === " " && document.activeElement?.closest("button, a, summary")) return;
      does(e);
    },
    // By the letter it makes, not by where it lies: keyboards differ.
    { preventDefault: true, useKey: true },
  );
}
