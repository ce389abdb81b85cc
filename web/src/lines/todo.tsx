import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { lq } from "./queries";

const kinds = [
  { id: "wind", name: "Wind on moorings" },
  { id: "line", name: "Lines" },
  { id: "gear", name: "Knots on gear" },
  { id: "tow", name: "Tow lines" },
  { id: "leader", name: "Leaders" },
  { id: "practice", name: "Practice" },
] as const;

/** All that is due, what cannot wait first. */
export function ToDoView() {
  const { data, error } = useQuery(lq.todo());
  return (
    <Page maxW="900px">
      <Title>What is due</Title>
      <Trouble error={error} />
      {data?.length === 0 && (
        <Box mt="3" fontSize="lg">
          Nothing is due.
        </Box>
      )}
      {kinds.map((k) => {
        const list = data?.filter((x) => x.kind === k.id) ?? [];
        return (
          list.length > 0 && (
            <Part key={k.id} title={k.name} mt="5">
              {list.map((x) => (
                <Card key={x.name + x.says} kind={x.now ? "warn" : undefined} mt="2" data-due={x.name}>
                  <Flex gap="3" align="center" wrap="wrap">
                    <Box flex="1" minW="240px">
                      <Box className="head" fontSize="lg">
                        {x.name}
                      </Box>
                      {x.says}
                    </Box>
                    <Press asChild look={x.now ? "main" : undefined}>
                      <Link to={x.to} aria-label={`See to ${x.name}`}>
                        See to it
                      </Link>
                    </Press>
                  </Flex>
                </Card>
              ))}
            </Part>
          )
        );
      })}
    </Page>
  );
}
