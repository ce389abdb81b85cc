import { defineRecipe } from "@chakra-ui/react";

/** Large enough for wet hands. One look for what is done most, one for the rest, one for what is by the way. */
export const press = defineRecipe({
  base: {
    minH: "44px",
    px: "4",
    borderRadius: "sm",
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
      /** The one that sends an answer on its way. */
      amber: {
        bg: "#e2a03c",
        color: "#10231d",
        borderColor: "#e2a03c",
        fontWeight: 700,
        _hover: { bg: "#f0b55a" },
      },
      /** On the kelp of the head of the page. */
      head: {
        border: "none",
        bg: "transparent",
        color: "inherit",
        fontWeight: 700,
        px: "2",
        _hover: { bg: "glass" },
      },
    },
    small: { true: { px: "3", fontSize: "md" } },
  },
});

/** A field to type in or to choose from. */
export const typed = defineRecipe({
  base: {
    minH: "44px",
    width: "100%",
    px: "2.5",
    border: "1.5px solid",
    borderColor: "ink",
    borderRadius: "sm",
    bg: "sheet",
    color: "ink",
    fontSize: "base",
    _placeholder: { color: "quiet", opacity: 1 },
    _invalid: { borderColor: "flare", borderWidth: "2px" },
  },
});

/** A sheet of paper on the page: what belongs together. */
export const card = defineRecipe({
  base: { bg: "sheet", border: "1.5px solid", borderColor: "rule", borderRadius: "md", p: "3" },
  variants: {
    kind: {
      link: { h: "100%", _hover: { borderColor: "kelp", boxShadow: "var(--shadow)" } },
      warn: { bg: "flareWash", border: "2px solid", borderColor: "flare" },
      note: { bg: "amberWash", border: "none" },
      good: { bg: "glassWash", border: "2px solid", borderColor: "glass" },
    },
  },
});
