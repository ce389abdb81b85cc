import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Scaled } from "../lines/tow-scale";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { reach } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Select, Typed } from "../ui/pick";

type Tow = Schemas["TowAnswer"];
type On = "pylon" | "tower" | "hook" | "eye";

const things = [
  { id: "pylon", name: "a pylon" },
  { id: "tower", name: "a tower" },
  { id: "hook", name: "an open hook" },
  { id: "eye", name: "a closed eye" },
];

/** Where a tow line is made fast for the length that a rider wants: the line to scale, the place, the hitch. */
export function TowLine() {
  const catalogue = useCatalogue().data;
  const [search, setSearch] = useSearchParams();
  const [typed, setTyped] = useState({
    takeoffs: search.get("takeoffs") ?? "60ft,65ft,…,85ft",
    want: search.get("want") ?? "68ft",
    on: (search.get("on") ?? "pylon") as On,
  });
  const { data, error } = useLasting(q.tow(typed));
  // What was typed stays in the address: a reload and a copied link keep it.
  const set = (part: Partial<typeof typed>) => {
    setTyped({ ...typed, ...part });
    setSearch({ ...typed, ...part }, { replace: true });
  };
  const told = ["person", "tow", "hardware"];
  return (
    <Page maxW="1160px">
      <Title>Tow line</Title>
      <Box h="2" />
      <Cautions list={catalogue?.cautions.filter((c) => told.includes(c.id)) ?? []} />
      {data && (
        <Box mt="3" opacity={error ? 0.45 : 1}>
          <Scaled tow={data} on={typed.on} say={feet} />
        </Box>
      )}
      <Grid templateColumns={{ base: "1fr", md: "2fr 1fr 1fr" }} gap="3" mt="3">
        <Typed
          label="Take-offs, from the handle; the last is the end"
          value={typed.takeoffs}
          set={(takeoffs) => set({ takeoffs })}
          wide
        />
        <Typed label="The rider wants" value={typed.want} set={(want) => set({ want })} wide />
        <Box>
          Made fast to
          <Box mt="1">
            <Select label="Made fast to" value={typed.on} set={(on) => set({ on: on as On })} list={things} />
          </Box>
        </Box>
      </Grid>
      <Box mt="2">
        <Trouble error={error} />
      </Box>
      {data && <Place tow={data} stale={Boolean(error)} />}
      <Flex gap="3" mt="5" className="no-print">
        <Press asChild>
          <Link to="/jobs/make-fast-tow">Make it fast, step by step</Link>
        </Press>
        <Press asChild>
          <Link to="/jobs/coil">Coil it</Link>
        </Press>
        <Press asChild>
          <Link to="/lines/tow">Tow lines that are kept</Link>
        </Press>
        <Press asChild look="bare">
          <Link to="/jobs">All jobs</Link>
        </Press>
      </Flex>
    </Page>
  );
}

const feet = (m: number) => `${Number((m / 0.3048).toPrecision(3))} ft`;

function Place({ tow, stale }: { tow: Tow; stale: boolean }) {
  return (
    <Card mt="3" opacity={stale ? 0.45 : 1} data-testid="tow" role="status">
      <Flex gap="5" align="center" wrap={{ base: "wrap", md: "nowrap" }}>
        {tow.hitch && (
          <Link to={`/knots/${tow.hitch}`} aria-label="See the hitch tied">
            <Drawing id={tow.hitch} name={tow.hitch} drawn w="190px" h="160px" />
          </Link>
        )}
        <Box>
          <Box className="head" fontSize="2xl">
            The {feet(tow.takeoff_m)} take-off{tow.hitch ? `, up ${reach(tow.take_up_m)}` : ""}
          </Box>
          <Box fontSize="lg">
            {tow.says}
            <Evidence tag="computed" source="take-off less wanted length, along the line" />
          </Box>
          {tow.hitch && (
            <Box mt="2" color="quiet">
              A hitch rubs the cover where it sits: feel it before every run, and shift the place.
            </Box>
          )}
        </Box>
      </Flex>
    </Card>
  );
}
