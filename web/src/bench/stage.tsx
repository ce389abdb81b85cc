import { Box, Flex } from "@chakra-ui/react";
import type { Schemas } from "../api/client";
import { Along, useAspect } from "../ui/drawing";

type Specimen = Schemas["BenchSpecimen"];

/** The bench from the side: cell, knot A, one piece of line, knot B, what draws it out. */
export function Stage({ of, names }: { of: Specimen; names: [string, string] }) {
  return (
    <Box bg="paper" borderBottom="1px solid" borderColor="rule" px={{ base: 2, md: 6 }} pt="2" pb="1">
      <Flex align="center" h={{ base: "84px", md: "124px" }} aria-hidden>
        <Machine>load cell</Machine>
        <Rod />
        <End knot={of.a.knot} name={names[0]} letter="A" />
        <Box
          flex="1"
          minW="20px"
          h="7px"
          bg="var(--rope-1)"
          border="1.5px solid var(--rope-1-edge)"
          mx={{ base: "-10px", md: "-26px" }}
          mt="28px"
        />
        <End knot={of.b.knot} name={names[1]} letter="B" turned />
        <Rod />
        <Machine>
          pull
          <svg width="44" height="14" viewBox="0 0 44 14" aria-hidden="true">
            <path d="M2 7h38m-8 -5l8 5l-8 5" fill="none" stroke="currentColor" strokeWidth="2.4" />
          </svg>
        </Machine>
      </Flex>
      <Box h="6px" bg="rule" borderTop="2px solid" borderColor="ink" aria-hidden />
    </Box>
  );
}

function Machine({ children }: { children: React.ReactNode }) {
  return (
    <Flex
      direction="column"
      align="center"
      justify="center"
      flex="none"
      mt="28px"
      w={{ base: "54px", md: "92px" }}
      h={{ base: "46px", md: "60px" }}
      bg="var(--object)"
      color="#10231d"
      border="2px solid var(--object-edge)"
      borderRadius="sm"
      fontSize="sm"
      lineHeight="1.1"
      textAlign="center"
    >
      {children}
    </Flex>
  );
}

const Rod = () => (
  <Box flex="none" mt="28px" w={{ base: "8px", md: "26px" }} h="9px" bg="var(--object-edge)" />
);

function End(props: { knot: string; name: string; letter: string; turned?: boolean }) {
  // An upright drawing is laid with its eye to the left, a level one has its standing part there.
  const level = useAspect(props.knot, {}) > 0.83;
  const flip = level !== Boolean(props.turned);
  return (
    <Flex direction="column" align="center" flex="none" w={{ base: "86px", md: "210px" }}>
      <Flex
        align="center"
        gap="2"
        h="28px"
        fontWeight="700"
        fontSize={{ base: "sm", md: "md" }}
        minW="0"
        maxW="100%"
      >
        <Flex
          flex="none"
          w="24px"
          h="24px"
          align="center"
          justify="center"
          border="2px solid"
          borderRadius="full"
          bg="sheet"
          fontSize="sm"
        >
          {props.letter}
        </Flex>
        <Box overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
          {props.name}
        </Box>
      </Flex>
      <Box w="100%" h={{ base: "52px", md: "92px" }} transform={flip ? "scaleX(-1)" : undefined}>
        <Along id={props.knot} name={props.name} drawn loop />
      </Box>
    </Flex>
  );
}
