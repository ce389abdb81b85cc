import { useRef } from "react";

/** Whether it has ever been so: a sheet that was never opened need not be there. */
export function useOnce(so: boolean): boolean {
  const once = useRef(false);
  once.current ||= so;
  return once.current;
}
