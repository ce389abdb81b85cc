import { Box, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import { useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { reach } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Typed } from "../ui/pick";

/** Two sums of the quay: how a fender hangs, how many coils a line makes. */
export function Measures() {
  return (
    <Page maxW="900px">
      <Title>Fender height and coils</Title>
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="5" mt="3">
        <FenderHeight />
        <Coils />
      </Grid>
      <Press asChild mt="5" className="no-print">
        <Link to="/jobs">All jobs</Link>
      </Press>
    </Page>
  );
}

function FenderHeight() {
  const [typed, set] = useState({ rail: "1.2 m", pontoon: "0.5 m", fender: "600 mm", line: "10 mm" });
  const { data, error } = useLasting(q.fender(typed));
  const one = (key: keyof typeof typed, label: string) => (
    <Box mt="2">
      <Typed label={label} value={typed[key]} set={(v) => set({ ...typed, [key]: v })} />
    </Box>
  );
  return (
    <Card>
      <Box className="head" fontSize="lg">
        Hang a fender
      </Box>
      {one("rail", "Rail or cleat above the water")}
      {one("pontoon", "Edge of the pontoon above the water")}
      {one("fender", "Length of the fender")}
      {one("line", "Its line")}
      <Trouble error={error} />
      {data && (
        <Box mt="3" fontSize="lg" data-testid="fender">
          <strong>Its eye hangs {reach(data.drop_m)} below the rail.</strong> Cut {reach(data.line_m)} of
          line.{" "}
          {data.clear_m < 0
            ? "Its foot hangs in the water."
            : `Its foot stays ${reach(data.clear_m)} above the water.`}
          <Evidence
            tag="computed"
            source="its middle at the edge of the pontoon; the line that a round turn and two half hitches take on a 25 mm rail, with their usual tail (our estimates)"
          />
          <Box fontSize="md" color="quiet">
            A pontoon rises and falls with you; on a fixed quay look again as the tide goes.
          </Box>
        </Box>
      )}
    </Card>
  );
}

function Coils() {
  const [typed, set] = useState({ length: "25 m", across: "40 cm" });
  const { data, error } = useLasting(q.coils(typed));
  return (
    <Card>
      <Box className="head" fontSize="lg">
        Coil a line
      </Box>
      <Box mt="2">
        <Typed label="Length" value={typed.length} set={(length) => set({ ...typed, length })} />
      </Box>
      <Box mt="2">
        <Typed label="Across a coil" value={typed.across} set={(across) => set({ ...typed, across })} />
      </Box>
      <Trouble error={error} />
      {data && (
        <Box mt="3" fontSize="lg" data-testid="coils">
          <strong>{data.coils} coils.</strong> Give each half a twist.
          <Evidence tag="computed" source="length ÷ (π × the width of a coil)" />
        </Box>
      )}
    </Card>
  );
}
