import { Box, Flex, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { short } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { TeachNav } from "./nav";

/** What a class shows at each knot: who can, how long it took against the plan, which faults, after which step. */
export function ReportView() {
  const [params, change] = useAddress();
  const group = params.get("group") ?? "";
  const { data, error } = useQuery(q.report(group));
  const groups = useQuery(q.board("")).data?.groups ?? [];
  useEffect(() => {
    document.title = "The class · Oarweed";
  }, []);
  return (
    <Page maxW="1300px">
      <TeachNav />
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Title>What the class shows</Title>
        <Box flex="1" />
        <Select
          label="Class"
          first="everybody"
          value={group}
          set={(g) => change({ group: g })}
          list={groups.map((g) => ({ id: g, name: g }))}
        />
      </Flex>
      <Trouble error={error} />
      {data && data.dry.length > 0 && (
        <Card kind="note" mt="2">
          Nobody has tied these wet or in gloves: {data.dry.join(", ")}.
        </Card>
      )}
      {data?.knots.length === 0 && <Box mt="3">Nothing has been tied yet.</Box>}
      {data && data.knots.length > 0 && (
        <Box overflowX="auto" mt="3" role="region" aria-label="The class, by knot" tabIndex={0}>
          <Table.Root w="100%" data-testid="report">
            <thead>
              <tr>
                {["Knot", "In time", "Tries until then", "Days", "Most frequent faults"].map((h) => (
                  <Box as="th" key={h} textAlign="left" fontWeight="400" color="quiet" pr="4">
                    {h}
                  </Box>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.knots.map((k) => (
                <Line key={k.knot} knot={k} planned={data.planned_tries} />
              ))}
            </tbody>
          </Table.Root>
          <Box color="quiet" mt="2">
            A lesson plans {data.planned_tries} tries until a knot is tied in time. Tries and days are medians
            of those who got there.
            <Evidence tag="computed" source="the attempts of the log" />
          </Box>
        </Box>
      )}
    </Page>
  );
}

function Line({ knot: k, planned }: { knot: Schemas["ClassKnot"]; planned: number }) {
  const share = k.learners > 0 ? k.competent / k.learners : 0;
  const slow = k.tries > planned;
  return (
    <Box as="tr" borderTop="1px solid" borderColor="rule" data-knot={k.knot}>
      <Box as="td" py="1" pr="4">
        <Flex asChild align="center" gap="2" minH="52px">
          <Link to={`/knots/${k.knot}`}>
            <Drawing id={k.knot} name={k.name} drawn w="56px" h="46px" flex="none" aria-hidden />
            <strong>{k.name}</strong>
          </Link>
        </Flex>
      </Box>
      <Box as="td" pr="4" minW="150px">
        {k.competent} of {k.learners}
        <Box
          h="10px"
          mt="1"
          border="1.5px solid"
          borderColor="ink"
          borderRadius="sm"
          overflow="hidden"
          aria-hidden
        >
          <Box h="100%" w={`${100 * share}%`} bg="glass" />
        </Box>
      </Box>
      <Box as="td" pr="4" fontWeight={slow ? 700 : 400} color={slow ? "flare" : undefined}>
        {k.competent > 0 ? `${short(k.tries)}${slow ? ", more than planned" : ""}` : "–"}
      </Box>
      <Box as="td" pr="4">
        {k.competent > 0 ? short(Math.round(k.days)) : "–"}
      </Box>
      <Box as="td" fontSize="16px">
        {k.faults.length === 0 && "none"}
        {k.faults.slice(0, 3).map((f) => (
          <Box key={f.code}>
            <strong>{f.n} ×</strong> {f.name}
            {f.after_step ? `, at step ${f.after_step}` : ""}
            <Box as="span" color="quiet">
              {" "}
              ({f.learners === 1 ? "one learner" : `${f.learners} learners`})
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
