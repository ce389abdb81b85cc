import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Files } from "./files";
import { LeaderCard } from "./leader-card";
import { LeaderPlan } from "./leader-plan";
import { LinesNav } from "./nav";
import { lq } from "./queries";
import { TripSheet } from "./trip";

/** Leaders in use: what each change takes, how many are left, when the next is due. */
export function LeadersView() {
  const { data, error } = useQuery(lq.leaders());
  const [plan, setPlan] = useState(false);
  const [trip, setTrip] = useState(false);
  return (
    <Page maxW="1200px">
      <LinesNav />
      <Flex gap="3" align="center" wrap="wrap">
        <Title>Leaders</Title>
        <Box flex="1" />
        <Files kind="leaders" />
        <Press onClick={() => setTrip(true)}>Line for a trip</Press>
        <Press look="main" onClick={() => setPlan(true)}>
          A new leader
        </Press>
      </Flex>
      <Box color="quiet" mt="1" maxW="66ch">
        Every knot that is cut off and tied again takes a piece of the leader. Touch once for each change.
      </Box>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(340px, 100%), 1fr))" gap="4" mt="4">
        {data?.map((l) => (
          <LeaderCard key={l.id} leader={l} />
        ))}
      </Grid>
      {data?.length === 0 && <Card mt="3">None is in use yet.</Card>}
      {plan && <LeaderPlan close={() => setPlan(false)} />}
      {trip && <TripSheet leaders={data ?? []} close={() => setTrip(false)} />}
    </Page>
  );
}
