import { Box } from "@chakra-ui/react";
import { Tabs } from "../ui/tab";

const views = [
  { to: "/lines", name: "Locker", end: true },
  { to: "/lines/leaders", name: "Leaders" },
  { to: "/lines/tow", name: "Tow lines" },
  { to: "/lines/moorings", name: "Moorings" },
  { to: "/lines/use", name: "Log of use" },
  { to: "/lines/quay", name: "Slip lines, fenders" },
];

/** The views of lines in use. */
export const LinesNav = () => (
  <Box mb="3">
    <Tabs name="Lines" views={views} />
  </Box>
);
