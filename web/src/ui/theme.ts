import { createSystem, defaultBaseConfig, defineConfig, defineSlotRecipe } from "@chakra-ui/react";
import {
  dialogAnatomy,
  fieldAnatomy,
  nativeSelectAnatomy,
  popoverAnatomy,
  tableAnatomy,
} from "@chakra-ui/react/anatomy";
import { typed } from "./recipes";

const token = (name: string) => ({ value: `var(--${name})` });
const tokens = (values: Record<string, string>): Record<string, { value: string }> =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [name, { value }]));
/** Spaces count quarters of a rem. */
const spaces = tokens(
  Object.fromEntries(
    [0, 0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 16].map((n) => [String(n), `${n / 4}rem`]),
  ),
);

// Only what is used comes with the application: Chakra's base and these few recipes.
const dialog = defineSlotRecipe({
  slots: dialogAnatomy.keys(),
  base: {
    backdrop: { bg: "rgb(10 23 19 / 55%)", pos: "fixed", inset: "0", zIndex: "sheet" },
    positioner: {
      pos: "fixed",
      inset: "0",
      zIndex: "sheet",
      display: "flex",
      justifyContent: "center",
      alignItems: "flex-start",
      overflow: "auto",
      overscrollBehaviorY: "none",
      py: { base: "2", md: "16" },
    },
    content: {
      display: "flex",
      flexDirection: "column",
      width: "100%",
      maxW: "560px",
      mx: "2",
      outline: "0",
      bg: "sheet",
      color: "ink",
      borderRadius: "md",
      boxShadow: "0 12px 40px rgb(10 23 19 / 40%)",
    },
    header: { px: "5", pt: "4", pb: "2" },
    title: { fontFamily: "heading", fontWeight: "600", fontSize: "xl", lineHeight: "1.2" },
    body: { px: "5", pt: "1", pb: "4" },
    footer: { display: "flex", justifyContent: "flex-end", gap: "2", px: "5", pt: "1", pb: "4" },
  },
});

const popover = defineSlotRecipe({
  slots: popoverAnatomy.keys(),
  base: {
    positioner: { zIndex: "sheet" },
    content: {
      display: "flex",
      flexDirection: "column",
      bg: "sheet",
      color: "ink",
      border: "1.5px solid",
      borderColor: "ink",
      borderRadius: "md",
      boxShadow: "var(--shadow)",
      maxW: "300px",
      outline: "0",
      zIndex: "sheet",
    },
    body: { p: "3", fontSize: "md" },
  },
});

const field = defineSlotRecipe({
  slots: fieldAnatomy.keys(),
  base: {
    root: { display: "block", width: "100%", minW: "0" },
    label: { display: "block", fontSize: "md" },
    errorText: { color: "flare", fontWeight: "700", fontSize: "md", mt: "1" },
    helperText: { color: "quiet", fontSize: "sm", mt: "1" },
  },
});

const nativeSelect = defineSlotRecipe({
  slots: nativeSelectAnatomy.keys(),
  base: {
    root: { position: "relative", display: "inline-flex", maxW: "100%" },
    field: {
      ...typed.base,
      appearance: "none",
      pe: "8",
      cursor: "pointer",
      "& option": { color: "#000", bg: "#fff" },
    },
    indicator: {
      position: "absolute",
      right: "2",
      top: "50%",
      transform: "translateY(-50%)",
      pointerEvents: "none",
      "& svg": { width: "1.1em", height: "1.1em" },
    },
  },
});

const table = defineSlotRecipe({
  slots: tableAnatomy.keys(),
  base: {
    root: { width: "100%", borderCollapse: "collapse", textAlign: "start", verticalAlign: "top" },
    columnHeader: { p: "1.5", textAlign: "start", verticalAlign: "bottom", fontWeight: "700" },
    cell: { p: "1.5", textAlign: "start", verticalAlign: "bottom" },
  },
});

/** Our own colours are CSS variables, so that the light can change without anything being drawn again. */
export const system = createSystem(
  defaultBaseConfig,
  defineConfig({
    preflight: true,
    theme: {
      breakpoints: { sm: "30rem", md: "48rem", lg: "64rem", xl: "80rem", "2xl": "106rem" },
      tokens: {
        fonts: tokens({
          body: '"Atkinson Hyperlegible", system-ui, sans-serif',
          heading: '"Fraunces", Georgia, serif',
        }),
        fontSizes: tokens({
          xs: "13px",
          sm: "14px",
          md: "15.5px",
          base: "17px",
          lg: "19px",
          xl: "23px",
          "2xl": "27px",
          "3xl": "31px",
        }),
        spacing: spaces,
        sizes: spaces,
        radii: tokens({ sm: "8px", md: "12px", full: "9999px" }),
        zIndex: { sheet: { value: 1400 } },
      },
      semanticTokens: {
        colors: {
          paper: token("paper"),
          sheet: token("sheet"),
          ink: token("ink"),
          quiet: token("quiet"),
          kelp: token("kelp"),
          kelpInk: token("kelp-ink"),
          glass: token("glass"),
          glassWash: token("glass-wash"),
          amber: token("amber"),
          amberWash: token("amber-wash"),
          flare: token("flare"),
          flareWash: token("flare-wash"),
          rule: token("line"),
        },
      },
      recipes: { input: typed },
      slotRecipes: { dialog, popover, field, nativeSelect, table },
    },
  }),
);
