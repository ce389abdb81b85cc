import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, range, reach } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { LineSheet } from "./edit";
import { Files } from "./files";
import { LookSheet } from "./look";
import { LinesNav } from "./nav";
import { type LineCard, lq } from "./queries";
import { RopePiece } from "./rope";
import { UseSheet } from "./use-sheet";
import { byLabel, states } from "./words";

/** The lines that one has, drawn as thick as they are: what each bears now, and what is to be seen to. */
export function LockerView() {
  const { data, error } = useQuery(lq.locker());
  const [add, setAdd] = useState(false);
  const [look, setLook] = useState<LineCard>();
  const [use, setUse] = useState<LineCard>();
  const inUse = data?.filter((l) => !l.retired) ?? [];
  const retired = data?.filter((l) => l.retired) ?? [];
  return (
    <Page maxW="1280px">
      <LinesNav />
      <Flex gap="3" align="center" wrap="wrap">
        <Title>Locker</Title>
        <Box flex="1" />
        <Files kind="locker" />
        <Press look="main" onClick={() => setAdd(true)}>
          Add a line
        </Press>
      </Flex>
      <Trouble error={error} />
      {data?.length === 0 && (
        <Card mt="3">Empty. Add a line here, or put one in from the rig where you chose it.</Card>
      )}
      <Grid templateColumns="repeat(auto-fill, minmax(min(380px, 100%), 1fr))" gap="4" mt="3">
        {inUse.map((l) => (
          <LineOfLocker key={l.id} line={l} look={() => setLook(l)} use={() => setUse(l)} />
        ))}
      </Grid>
      {retired.length > 0 && (
        <>
          <Box className="head" fontSize="lg" mt="6" mb="1">
            Retired
          </Box>
          {retired.map((l) => (
            <Box key={l.id}>
              <Link to={`/lines/${l.code}`} className="link">
                {l.name}
              </Link>{" "}
              {l.says[0]}
            </Box>
          ))}
        </>
      )}
      {add && <LineSheet close={() => setAdd(false)} />}
      {look && <LookSheet line={look} close={() => setLook(undefined)} />}
      {use && <UseSheet line={use.code} close={() => setUse(undefined)} />}
    </Page>
  );
}

function LineOfLocker({ line: l, look, use }: { line: LineCard; look: () => void; use: () => void }) {
  const bad = Boolean(l.state.retire);
  const due = l.state.look_due;
  const seen = l.looks?.at(-1);
  return (
    <Card
      data-locker={l.name}
      p="4"
      borderColor={bad ? "flare" : due ? "amber" : "rule"}
      borderWidth={bad || due ? "2px" : "1.5px"}
      display="flex"
      flexDirection="column"
    >
      <Link to={`/lines/${l.code}`} style={{ textDecoration: "none", color: "inherit" }}>
        <Flex gap="3" align="baseline">
          <Box className="head" fontSize="xl" flex="1">
            {l.name}
          </Box>
          {l.length_m ? (
            <Box fontWeight="700" whiteSpace="nowrap">
              {reach(l.length_m)} left
            </Box>
          ) : null}
        </Flex>
        <RopePiece
          mm={l.thick_mm}
          colour={l.colour}
          made={l.construction}
          worn={
            seen?.place_m && l.length_m && l.wear
              ? [{ at: seen.place_m / l.length_m, grade: l.wear }]
              : undefined
          }
          w={400}
        />
        <Box color="quiet">
          {l.called}
          {l.lives ? `, ${l.lives}` : ""}
        </Box>
      </Link>
      <Flex gap="2" align="baseline" mt="1" wrap="wrap">
        <Box className="head" fontSize="2xl" color={bad ? "flare" : undefined}>
          {bad ? "Not to be used" : range(l.state.now_kn, (v) => force(v, byLabel(l)))}
        </Box>
        {!bad && (
          <>
            <Box>now, wet, {states[l.wear ?? 0]}</Box>
            <Evidence tag={l.state.now_kn.tag} source={l.state.now_kn.source} />
          </>
        )}
      </Flex>
      {(bad || due) && (
        <Box fontWeight="700" color={bad ? "flare" : "ink"} mt="1">
          {l.says[0]}
        </Box>
      )}
      <Flex gap="2" mt="auto" pt="3" wrap="wrap">
        <Press look={due || bad ? "main" : undefined} onClick={look}>
          Look it over
        </Press>
        <Press onClick={use}>Log a use</Press>
        <Press asChild look="bare">
          <Link to={`/lines/${l.code}`} aria-label={`History of ${l.name}`}>
            History
          </Link>
        </Press>
      </Flex>
    </Card>
  );
}
