import { Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { q } from "../api/queries";
import { Tab } from "../ui/tab";

const views = [
  { to: "/teach", name: "Board", end: true },
  { to: "/teach/report", name: "The class" },
  { to: "/teach/due", name: "Due" },
  { to: "/teach/plan", name: "Lessons" },
  { to: "/teach/people", name: "Learners" },
  { to: "/teach/quay", name: "On the quay" },
];

/** The views of teaching. */
export function TeachNav() {
  const due = useQuery(q.due()).data?.length ?? 0;
  return (
    <Flex
      as="nav"
      aria-label="Teaching"
      gap="1"
      overflowX="auto"
      borderBottom="1px solid"
      borderColor="rule"
      className="no-print"
    >
      {views.map((v) => (
        <Tab key={v.to} to={v.to} end={v.end}>
          {v.name}
          {v.name === "Due" && due > 0 ? ` (${due})` : ""}
        </Tab>
      ))}
    </Flex>
  );
}
