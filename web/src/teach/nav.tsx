import { chakra, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { q } from "../api/queries";

const views = [
  { to: "/teach", name: "Board", end: true },
  { to: "/teach/report", name: "The class" },
  { to: "/teach/due", name: "Due" },
  { to: "/teach/plan", name: "Lessons" },
  { to: "/teach/people", name: "Learners" },
  { to: "/teach/quay", name: "On the quay" },
];

const Tab = chakra(NavLink, {
  base: {
    display: "inline-flex",
    alignItems: "center",
    minH: "44px",
    px: "3",
    borderBottom: "3px solid transparent",
    whiteSpace: "nowrap",
    "&[aria-current=page]": { fontWeight: 700, borderBottomColor: "amber" },
  },
});

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
