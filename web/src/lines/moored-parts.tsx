import { Box, Flex } from "@chakra-ui/react";
import { Part } from "../ui/page";

/** What is said to the crew, in order. */
export const Order = ({ title, list }: { title: string; list: string[] }) => (
  <Part title={title} data-order={title}>
    <Box as="ol" listStyleType="none" p="0">
      {list.map((s, i) => (
        <Flex as="li" key={s} gap="3" py="2" borderTop="1px solid" borderColor="rule">
          <Box
            className="head"
            fontSize="xl"
            w="26px"
            flex="none"
            color="glass"
            textAlign="right"
            lineHeight="1.2"
          >
            {i + 1}
          </Box>
          <Box>{s}</Box>
        </Flex>
      ))}
    </Box>
  </Part>
);

const points = [
  "ahead",
  "starboard bow",
  "starboard beam",
  "starboard quarter",
  "astern",
  "port quarter",
  "port beam",
  "port bow",
];
export const bearing = (deg: number) => `${deg}°, ${points[Math.round(deg / 45) % 8]}`;

/** A number that is turned. */
export function Slide(p: {
  name: string;
  value: number;
  max: number;
  shown: string;
  set: (v: number) => void;
}) {
  return (
    <Flex as="label" align="center" gap="3" mt="2" minH="44px" wrap="wrap">
      <Box w={{ base: "100%", md: "150px" }}>{p.name}</Box>
      <input
        type="range"
        min={0}
        max={p.max}
        value={p.value}
        onChange={(e) => p.set(Number(e.target.value))}
        style={{ flex: 1, minWidth: "140px", accentColor: "var(--glass)", height: "44px" }}
      />
      <Box w="170px" fontWeight="700">
        {p.shown}
      </Box>
    </Flex>
  );
}
