import { Box, chakra, Popover, Portal } from "@chakra-ui/react";
import { memo } from "react";
import type { Figure } from "../api/client";

type Tag = Figure["tag"];

/** Of what is measured on a knot drawn up. */
export const inSpace = {
  tag: "computed" as const,
  source: "drawn up in space, our own model: smooth rope that does not squeeze",
};

const words: Record<Tag, { mark: string; meaning: string }> = {
  published: { mark: "■", meaning: "Published: from the source named here." },
  computed: { mark: "◆", meaning: "Computed by Oarweed from stated inputs." },
  trade: { mark: "●", meaning: "Trade: common practice, no source." },
  memory: { mark: "○", meaning: "Memory: recalled, not checked. A starting point only." },
  yours: { mark: "★", meaning: "Yours: entered or measured by you." },
};

/** Where a number comes from, in short. */
export function Mark({ tag }: { tag: Tag }) {
  return (
    <Box as="span" whiteSpace="nowrap">
      <span aria-hidden>{words[tag].mark}</span> {tag}
    </Box>
  );
}

/** The mark alone, beside a number in something that is pressed as a whole; its word is read out. */
export const Sign = memo(function Sign({ tag }: { tag: Tag }) {
  return (
    <Box as="span" fontSize="11px" color="quiet" role="img" aria-label={tag} title={words[tag].meaning}>
      {words[tag].mark}
    </Box>
  );
});

/** Where a number comes from, as a mark and a word; pressed, it names the source. */
export const Evidence = memo(function Evidence({
  tag,
  source,
  bare,
}: {
  tag: Tag;
  source?: string;
  /** The mark without its word, where there is no room for it. */
  bare?: boolean;
}) {
  const w = words[tag];
  return (
    <Popover.Root lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <chakra.button
          type="button"
          display="inline-flex"
          alignItems="center"
          gap="1"
          minH={bare ? "24px" : "28px"}
          px="1.5"
          fontSize="xs"
          color="quiet"
          borderRadius="full"
          cursor="pointer"
          _hover={{ bg: "amberWash", color: "ink" }}
          aria-label={`Evidence: ${tag}. Show the source`}
        >
          {bare ? <span aria-hidden>{words[tag].mark}</span> : <Mark tag={tag} />}
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content>
            <Popover.Body>
              <strong>{w.meaning}</strong>
              {source && <Box mt="1">{source}.</Box>}
              <Box mt="1">
                <a href="/method" className="link">
                  Method
                </a>
              </Box>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
});
