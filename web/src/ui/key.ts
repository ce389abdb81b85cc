/**
 * A new name for a record, made here so that sending it twice makes one record.
 * getRandomValues works without a secure context; randomUUID does not, and phones call the
 * server by its address over plain http.
 */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, "0")).join(
    "",
  );
}
