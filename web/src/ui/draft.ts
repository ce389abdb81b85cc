import { useEffect, useState } from "react";

/**
 * What is typed in a form, kept while the window is open: a sheet that was closed by
 * mistake, or a page loaded anew, shows it again. place names the form.
 */
export function useDraft<T extends object>(place: string, first: () => T) {
  const [value, setValue] = useState<T>(() => ({ ...first(), ...read(place) }));
  useEffect(() => {
    try {
      sessionStorage.setItem(place, JSON.stringify(value));
    } catch {
      // Full or forbidden: then it lasts as long as the form.
    }
  }, [place, value]);
  return [value, (part: Partial<T>) => setValue((now) => ({ ...now, ...part }))] as const;
}

export function forgetDraft(place: string): void {
  try {
    sessionStorage.removeItem(place);
  } catch {
    // It was not kept either.
  }
}

function read(place: string): object | undefined {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? "null") ?? undefined;
  } catch {
    return undefined;
  }
}
