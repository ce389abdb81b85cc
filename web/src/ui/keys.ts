/** Keys pressed in a field, or with a modifier, are not shortcuts. */
export function isTyping(e: KeyboardEvent): boolean {
  const t = e.target instanceof Element ? e.target : null;
  return e.ctrlKey || e.metaKey || e.altKey || !!t?.closest("input, textarea, select, [role=dialog]");
}
