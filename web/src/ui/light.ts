import { useEffect, useState } from "react";
import { usePrefs } from "./prefs";

export type Light = "day" | "sun" | "night";
const key = "oarweed-light";

/** Day, sun or night; remembered on this device. */
export function useLight(): [Light, (light: Light) => void] {
  const [light, setLight] = useState<Light>(() => (localStorage.getItem(key) as Light) || "day");
  const { large } = usePrefs();
  useEffect(() => {
    document.documentElement.dataset.text = large ? "large" : "";
  }, [large]);
  useEffect(() => {
    document.documentElement.dataset.light = light;
    localStorage.setItem(key, light);
  }, [light]);
  return [light, setLight];
}
