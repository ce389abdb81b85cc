import { Box } from "@chakra-ui/react";
import { Tabs } from "../ui/tab";

const views = [
  { to: "/bench", name: "Series", end: true },
  { to: "/bench/ledger", name: "What is said" },
  { to: "/bench/detective", name: "What a break tells" },
  { to: "/bench/friction", name: "Friction" },
];

/** The views of the bench. */
export const BenchNav = () => (
  <Box mb="3">
    <Tabs name="The bench" views={views} />
  </Box>
);
