import { chakra } from "@chakra-ui/react";
import { NavLink } from "react-router";

/** One of the views that belong together. */
export const Tab = chakra(NavLink, {
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
