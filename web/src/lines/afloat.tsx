import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card } from "../ui/page";
import { Typed } from "../ui/pick";
import { useStream } from "../ui/stream";
import { lq } from "./queries";

export type Afloat = Schemas["Afloat"];

/** The wind as it blows and how it stands against each berth at which she lies. */
export function useAfloat(): Afloat | undefined {
  const [now, setNow] = useState<Afloat>();
  useStream("/api/v1/wind/live", (text) => setNow(JSON.parse(text) as Afloat));
  return now;
}

/** What is known of the wind, where it comes from, and warnings before a berth goes. */
export function WindStrip({ now }: { now: Afloat | undefined }) {
  const settings = useQuery(lq.wind()).data;
  const [addr, setAddr] = useState("");
  const [open, setOpen] = useState(false);
  useEffect(() => setAddr(settings?.addr ?? ""), [settings?.addr]);
  const save = useKept((to: string) =>
    unwrap(
      api.PUT("/api/v1/wind", {
        params: { header: { "If-Match": `"${settings?.revision ?? 0}"` } },
        body: { addr: to } as Schemas["WindSettings"],
      }),
    ),
  );
  const lost = Boolean(settings?.addr) && now && !now.wind.known;
  return (
    <Box mt="2" data-wind={now?.wind.known ? "known" : lost ? "lost" : "none"}>
      <Card kind={lost ? "warn" : undefined} role={lost ? "alert" : "status"} py="2">
        <Flex gap="3" align="center" wrap="wrap">
          <Box flex="1" minW="220px" fontWeight={lost ? 700 : 400}>
            {now?.says ?? "Asking for the wind…"}
          </Box>
          <Press small look="bare" aria-expanded={open} onClick={() => setOpen(!open)}>
            Wind instrument
          </Press>
        </Flex>
        {open && (
          <>
            <Flex gap="2" mt="2" align="end" wrap="wrap">
              <Box w="260px">
                <Typed label="Address of the wind instrument (NMEA 0183)" value={addr} set={setAddr} />
              </Box>
              <Press look="main" onClick={() => save.mutate(addr)}>
                Listen
              </Press>
              {settings?.addr && <Press onClick={() => save.mutate("")}>Stop listening</Press>}
            </Flex>
            <Box fontSize="sm" color="quiet" mt="1">
              Host and port, like 192.168.1.30:10110. Sentences MWV, MWD and VWR are read; a wrong checksum is
              left out{now?.wind.torn ? ` (${now.wind.torn} so far)` : ""}.
            </Box>
            <Trouble error={save.error} />
          </>
        )}
      </Card>
      {now?.berths.map((b) => (
        <Card
          key={b.id}
          mt="2"
          kind={b.warn ? "warn" : "note"}
          role={b.warn ? "alert" : "status"}
          fontWeight={b.warn ? 700 : 400}
          data-berth={b.name}
          data-warn={b.warn}
        >
          {b.says}
        </Card>
      ))}
    </Box>
  );
}
