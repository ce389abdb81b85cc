import { chakra } from "@chakra-ui/react";

/** What is touched to turn a crossing over: dashed while nobody has said, ringed where it is wrong. */
export const Crossing = chakra("button", {
  base: {
    position: "absolute",
    width: "48px",
    height: "48px",
    margin: "-24px 0 0 -24px",
    borderRadius: "full",
    cursor: "pointer",
    color: "flare",
    fontWeight: 700,
    border: "2px solid transparent",
  },
  variants: {
    open: { true: { border: "3px dashed", borderColor: "flare", bg: "rgb(255 253 246 / 62%)" } },
    /** Where many lie close together. */
    dense: { true: { width: "32px", height: "32px", margin: "-16px 0 0 -16px", fontSize: "sm" } },
    wrong: { true: { border: "4px solid", borderColor: "flare" } },
  },
});
