import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";

type Session = Schemas["Session"];

/** Takes a new session over, and forgets what was asked for as somebody else. */
export function useEntered() {
  const client = useQueryClient();
  return (session: Session | undefined) => {
    client.removeQueries({ predicate: (x) => x.queryKey[0] !== "session" });
    if (session) client.setQueryData(q.session().queryKey, session);
    else void client.invalidateQueries({ queryKey: q.session().queryKey });
  };
}
