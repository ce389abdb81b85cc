import { chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { NavLink } from "react-router";

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

/** Views that belong together. */
export function Tabs({
  name,
  views,
}: {
  name: string;
  views: { to: string; name: ReactNode; end?: boolean }[];
}) {
  return (
    <Flex
      as="nav"
      aria-label={name}
      gap="1"
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
