import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Rig, Schemas } from "../api/client";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { part, sound } from "../rig/document";
import { phrases } from "../rig/phrases";
import { Sentence } from "../rig/sentence";
import { atHand } from "../rig/state";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";

/** Common sayings, each worked out on the rig at hand. */
export function SayingsView() {
  const catalogue = useCatalogue().data;
  if (!catalogue) return <Box p="6">Loading…</Box>;
  return <Sayings catalogue={catalogue} />;
}

function Sayings({ catalogue }: { catalogue: Catalogue }) {
  const [rig, setRig] = useState<Rig>(() => part(atHand(sound), 1));
  const { data, error } = useLasting(q.sayings(rig));
  const p = phrases(rig, catalogue);
  const on = p.fitting_kind ? [", round a ", p.fitting_size, " ", p.fitting_kind] : [];
  const parts = ["Worked out on ", p.line_size, " ", p.line_kind, ", ", p.wet, ...on, ", at ", p.load, "."];
  return (
    <Page maxW="860px">
      <Title>Sayings, tested</Title>
      <Box color="quiet" mb="3">
        What is said on every pontoon, worked out on your own line. Change it and ask the class first.
      </Box>
      <Card mb="4">
        <Sentence parts={parts.filter((x) => x !== undefined)} change={setRig} />
      </Card>
      <Trouble error={error} />
      <Flex direction="column" gap="3">
        {data?.map((s) => (
          <SayingCard key={s.id} saying={s} />
        ))}
      </Flex>
      <Press asChild mt="5" className="no-print">
        <Link to="/jobs">All jobs</Link>
      </Press>
    </Page>
  );
}

const looks = {
  "true here": { sign: "✓", colour: "glass", wash: "glassWash" },
  "half true": { sign: "◐", colour: "amber", wash: "amberWash" },
  "not here": { sign: "✕", colour: "flare", wash: "flareWash" },
} as const;

function SayingCard({ saying: s }: { saying: Schemas["SaySaying"] }) {
  const look = looks[s.verdict];
  return (
    <Card data-saying={s.id}>
      <Flex gap="3" align="baseline" wrap="wrap">
        <Box className="head" fontSize="xl">
          “{s.saying}”
        </Box>
        <Box px="2" borderRadius="full" bg={look.wash} color={look.colour} fontWeight="700">
          {look.sign} {s.verdict}
        </Box>
      </Flex>
      <Box mt="2" fontSize="lg">
        {s.says}{" "}
        <Evidence
          tag="computed"
          source="capstan equation, riding-turn theory and what use teaches: see Method"
        />
      </Box>
      <Box mt="1" color="quiet">
        {s.when}
      </Box>
    </Card>
  );
}
