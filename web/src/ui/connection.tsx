import { Box } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { isSilence } from "../api/client";

const clock = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });

/** Says so at once when the server cannot be reached, and since when; goes by itself when it answers again. */
export function Connection() {
  const cache = useQueryClient().getQueryCache();
  const [since, setSince] = useState<number>();
  useEffect(() => {
    const look = () => {
      const all = cache.getAll();
      const silent = all.some((query) => query.getObserversCount() > 0 && isSilence(query.state.error));
      const last = Math.max(0, ...all.map((query) => query.state.dataUpdatedAt));
      setSince(silent ? last : undefined);
    };
    look();
    return cache.subscribe(look);
  }, [cache]);
  if (since === undefined) return null;
  return (
    <Box
      role="alert"
      bg="amberWash"
      color="ink"
      px={{ base: "3", md: "6" }}
      py="2"
      fontSize="md"
      data-testid="connection"
    >
      <strong>No connection to Oarweed.</strong>{" "}
      {since > 0 ? `What is shown was answered at ${clock.format(since)}.` : "Nothing was answered yet."} What
      you type is kept here, and it is asked again by itself.
    </Box>
  );
}
