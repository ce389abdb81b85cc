import { Box, chakra } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { q } from "../api/queries";
import { lq } from "./queries";

const Pill = chakra(Link, {
  base: {
    display: "inline-flex",
    "@media (max-width: 339px)": { display: "none" },
    alignItems: "center",
    minH: "36px",
    px: { base: "1.5", md: "3" },
    fontSize: { base: "15px", md: "inherit" },
    borderRadius: "full",
    bg: "#e2a03c",
    color: "#10231d",
    fontWeight: 700,
    whiteSpace: "nowrap",
  },
});

/** How much is due, from every view; nothing where nothing is, or for a learner. */
export function DueCount() {
  // A learner is not asked for what is not his to see to.
  const session = useQuery(q.session());
  const sees = session.isSuccess && session.data.role !== "learner";
  const list = useQuery({ ...lq.todo(), enabled: sees }).data ?? [];
  if (!sees || list.length === 0) return null;
  const pressing = list.some((x) => x.now);
  return (
    <Pill
      to="/due"
      aria-label={`${list.length} due${pressing ? ", some of it now" : ""}`}
      bg={pressing ? "#f3d3cb" : undefined}
      color={pressing ? "#7a1a12" : undefined}
    >
      {pressing && <span aria-hidden="true">!</span>}
      {list.length}
      <Box as="span" css={{ "@media (max-width: 1199px)": { display: "none" } }}>
        &nbsp;due
      </Box>
    </Pill>
  );
}
