import { Box, chakra, Flex, Grid, Popover, Portal } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useEffect, useMemo } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Drawing, Svg } from "../ui/drawing";
import { capital } from "../ui/format";
import { Card, Page, Title } from "../ui/page";

type Word = Schemas["TradeWord"];

/** Every word of the trade that is used here, with a picture where one helps. */
export function WordsView() {
  const words = useCatalogue().data?.words ?? [];
  useEffect(() => {
    document.title = "Words · Oarweed";
  }, []);
  const drawn = words.filter((w) => w.picture || w.knot);
  return (
    <Page maxW="1240px" py="4">
      <Flex align="center" gap="4" wrap="wrap">
        <Title>Words</Title>
        <Box flex="1" />
        <Press asChild small>
          <a href="/api/v1/words.pdf" target="_blank" rel="noreferrer">
            Words to print
          </a>
        </Press>
      </Flex>
      <Grid templateColumns="repeat(auto-fill, minmax(min(260px, 100%), 1fr))" gap="3" mt="3">
        {drawn.map((w) => (
          <Card key={w.id} id={w.id} css={{ breakInside: "avoid" }}>
            <Picture word={w} h="120px" />
            <Meaning word={w} />
          </Card>
        ))}
      </Grid>
      <Grid
        templateColumns="repeat(auto-fill, minmax(min(330px, 100%), 1fr))"
        columnGap="6"
        rowGap="2"
        mt="4"
      >
        {words
          .filter((w) => !drawn.includes(w))
          .map((w) => (
            <Box key={w.id} id={w.id}>
              <Meaning word={w} />
            </Box>
          ))}
      </Grid>
    </Page>
  );
}

function Meaning({ word: w }: { word: Word }) {
  return (
    <Box>
      <strong>{capital(w.word)}</strong>
      {w.also && <Box as="span" color="quiet">{` also ${w.also.join(", ")}`}</Box>}
      <Box>{w.says}</Box>
    </Box>
  );
}

function Picture({ word, h }: { word: Word; h: string }) {
  const own = useQuery({ ...q.wordDrawing(word.picture ?? ""), enabled: Boolean(word.picture) });
  if (word.picture) return <Svg text={own.data} w="100%" h={h} />;
  return word.knot ? <Drawing id={word.knot} name={word.word} drawn w="100%" h={h} /> : null;
}

const Asked = chakra("button", {
  base: {
    display: "inline",
    font: "inherit",
    color: "inherit",
    cursor: "help",
    textDecoration: "underline dotted",
    textUnderlineOffset: "3px",
    textDecorationColor: "var(--quiet)",
  },
});

/** A sentence in which each word of the trade, where it comes first, says what it means. */
export function Worded({ text }: { text: string }) {
  const words = useCatalogue().data?.words;
  const parts = useMemo(() => split(text, words ?? []), [text, words]);
  return parts.map((p, i) =>
    typeof p === "string" ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: a sentence does not change its parts' places
      <Fragment key={i}>{p}</Fragment>
    ) : (
      <Explained key={p.word.id} {...p} />
    ),
  );
}

function Explained({ shown, word, after }: Asking) {
  return (
    <Popover.Root lazyMount unmountOnExit>
      {/* A button is a box of its own: what follows it without a blank stays with it. */}
      <Box as="span" whiteSpace="nowrap">
        <Popover.Trigger asChild>
          <Asked type="button" aria-label={`${shown}: what it means`}>
            {shown}
          </Asked>
        </Popover.Trigger>
        {after}
      </Box>
      <Portal>
        <Popover.Positioner>
          <Popover.Content>
            <Popover.Body>
              <Picture word={word} h="90px" />
              <strong>{capital(word.word)}.</strong> {word.says}{" "}
              <Link to={`/words#${word.id}`} className="link">
                All words
              </Link>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

type Asking = { shown: string; word: Word; after: string };

/** The text cut where a word of the glossary comes for the first time; the longest word wins. */
export function split(text: string, words: Word[]): (string | Asking)[] {
  const forms = words.flatMap((w) => [w.word, ...(w.also ?? [])].map((form) => ({ form, word: w })));
  if (forms.length === 0) return [text];
  const sorted = [...forms].sort((a, b) => b.form.length - a.form.length);
  const any = new RegExp(`\\b(${sorted.map((f) => f.form).join("|")})\\b`, "gi");
  const out: (string | Asking)[] = [];
  const said = new Set<string>();
  let from = 0;
  for (const m of text.matchAll(any)) {
    const found = sorted.find((f) => f.form === m[0].toLowerCase());
    // "Knot" and "end" are plain enough where they stand in every sentence.
    if (!found || said.has(found.word.id) || plain.has(found.word.id)) continue;
    said.add(found.word.id);
    const end = m.index + m[0].length;
    const after = /^[.,:;!?)]*/.exec(text.slice(end))?.[0] ?? "";
    out.push(text.slice(from, m.index), { shown: m[0], word: found.word, after });
    from = end + after.length;
  }
  return [...out, text.slice(from)].filter((p) => p !== "");
}

const plain = new Set(["knot", "end", "hitch", "loop", "turn", "lay", "bend"]);
