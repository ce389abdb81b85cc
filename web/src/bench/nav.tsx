import { Flex } from "@chakra-ui/react";
import { Tab } from "../ui/tab";

const views = [
  { to: "/bench", name: "Series", end: true },
  { to: "/bench/ledger", name: "What is said" },
  { to: "/bench/detective", name: "What a break tells" },
  { to: "/bench/friction", name: "Friction" },
];

/** The views of the bench. */
export function BenchNav() {
  return (
    <Flex
      as="nav"
      aria-label="The bench"
      gap="1"
      mb="3"
      overflowX="auto"
      borderBottom="1px solid"
      borderColor="rule"
      className="no-print"
    >
      {views.map((v) => (
        <Tab key={v.to} to={v.to} end={v.end}>
          {v.name}
        </Tab>
      ))}
    </Flex>
  );
}
