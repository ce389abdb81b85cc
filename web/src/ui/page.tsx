import { Box, type BoxProps, chakra, Heading } from "@chakra-ui/react";
import { card } from "./recipes";

/** The body of a view. */
export function Page({ children, ...box }: BoxProps) {
  return (
    <Box as="main" w="100%" maxW="1000px" mx="auto" px={{ base: 3, md: 6 }} py="5" {...box}>
      {children}
    </Box>
  );
}

/** The heading of a view, and of a part of it. */
export const Title = (props: { children: React.ReactNode }) => (
  <Heading as="h1" fontSize={{ base: "2xl", md: "3xl" }} {...props} />
);
export const Part = ({ title, children, ...box }: { title: React.ReactNode } & Omit<BoxProps, "title">) => (
  <Box mb="5" {...box}>
    <Heading as="h2" fontSize="lg" mb="1">
      {title}
    </Heading>
    {children}
  </Box>
);

export const Card = chakra("div", card);
