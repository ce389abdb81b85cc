import { chakra } from "@chakra-ui/react";

/** A button large enough for wet hands. */
export const Press = chakra("button", {
  base: {
    minH: "44px",
    px: "4",
    borderRadius: "8px",
    border: "1.5px solid",
    borderColor: "ink",
    bg: "sheet",
    color: "ink",
    fontSize: "16px",
    cursor: "pointer",
    display: "inline-flex",
    alignItems: "center",
    justifyContent: "center",
    gap: "2",
    _hover: { bg: "amberWash" },
    _disabled: { opacity: 0.5, cursor: "default" },
    _pressed: { bg: "kelp", color: "kelpInk", borderColor: "kelp" },
  },
  variants: {
    look: {
      main: {
        bg: "kelp",
        color: "kelpInk",
        borderColor: "kelp",
        fontWeight: 700,
        _hover: { bg: "glass", color: "kelpInk" },
      },
      bare: {
        border: "none",
        bg: "transparent",
        textDecoration: "underline",
        textUnderlineOffset: "4px",
        px: "2",
      },
    },
  },
});
