import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";
import { useCatalogue } from "../api/hooks";
import { Drawing } from "../ui/drawing";
import { Trouble } from "../ui/notes";

const kinds = {
  loop: "Loops",
  hitch: "Hitches, to a thing",
  bend: "Bends, line to line",
  stopper: "Stoppers",
  terminal: "To a hook, lure or fly",
} as const;

/** All knots, by kind, found by any name they go by. */
export function KnotList() {
  const { data, error } = useCatalogue();
  const [word, setWord] = useState("");
  const found = data?.knots.filter((k) =>
    [k.name, ...(k.also ?? []), k.summary].some((t) => t.toLowerCase().includes(word.trim().toLowerCase())),
  );
  return (
    <Box as="main" w="100%" maxW="1200px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Box as="h1" fontSize="30px">
          Knots
        </Box>
        <input
          type="search"
          value={word}
          placeholder="Find by name or use"
          aria-label="Find by name or use"
          onChange={(e) => setWord(e.target.value)}
          style={{
            minHeight: 44,
            width: 260,
            padding: "0 12px",
            border: "1.5px solid var(--ink)",
            borderRadius: 8,
            background: "var(--sheet)",
          }}
        />
      </Flex>
      <Trouble error={error} />
      {found?.length === 0 && <Box mt="4">No knot here is called “{word}”.</Box>}
      {Object.entries(kinds).map(([kind, title]) => {
        const list = found?.filter((k) => k.kind === kind) ?? [];
        if (list.length === 0) return null;
        return (
          <Box key={kind} mt="6">
            <Box as="h2" fontSize="20px" mb="2">
              {title}
            </Box>
            <Grid templateColumns="repeat(auto-fill, minmax(250px, 1fr))" gap="3">
              {list.map((k) => (
                <Link key={k.id} to={`/knots/${k.id}`}>
                  <Flex
                    gap="3"
                    p="3"
                    h="100%"
                    bg="sheet"
                    border="1.5px solid"
                    borderColor="rule"
                    borderRadius="12px"
                    _hover={{ borderColor: "kelp", boxShadow: "var(--shadow)" }}
                  >
                    <Drawing
                      id={k.id}
                      name={k.name}
                      drawn={k.drawn}
                      w="86px"
                      h="86px"
                      flex="none"
                      fontSize="11px"
                    />
                    <Box>
                      <Box className="head" fontSize="18px">
                        {k.name}
                      </Box>
                      <Box fontSize="15px" lineHeight="1.35" color="quiet">
                        {k.summary}
                      </Box>
                    </Box>
                  </Flex>
                </Link>
              ))}
            </Grid>
          </Box>
        );
      })}
    </Box>
  );
}
