import { createSystem, defaultConfig, defineConfig } from "@chakra-ui/react";

const token = (name: string) => ({ value: `var(--${name})` });

/** Chakra on our own colours, which are CSS variables so that the light can change without a re-render. */
export const system = createSystem(
  defaultConfig,
  defineConfig({
    theme: {
      tokens: {
        fonts: {
          body: { value: '"Atkinson Hyperlegible", system-ui, sans-serif' },
          heading: { value: '"Fraunces", Georgia, serif' },
        },
      },
      semanticTokens: {
        colors: {
          bg: { DEFAULT: token("paper"), panel: token("sheet"), subtle: token("sheet") },
          fg: { DEFAULT: token("ink"), muted: token("quiet") },
          border: { DEFAULT: token("line") },
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
    },
  }),
);
