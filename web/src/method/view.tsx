import { Box, chakra, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import Markdown, { type Components } from "react-markdown";
import gfm from "remark-gfm";
import { q } from "../api/queries";
import { Trouble } from "../ui/notes";
import { Page, Part, Title } from "../ui/page";

const Paragraph = chakra("p", { base: { my: "2", lineHeight: "1.55", maxW: "72ch" } });
const List = chakra("ul", { base: { ps: "5", my: "2", listStyleType: "disc", maxW: "72ch" } });
const id = (title: unknown) =>
  String(title)
    .toLowerCase()
    .replace(/[^a-z]+/g, "-");

/** Markdown in the pieces of this application. */
const pieces: Components = {
  h1: ({ children }) => <Title>{children}</Title>,
  h2: ({ children }) => (
    <Part title={<span id={id(children)}>{children}</span>} mb="0" mt="6">
      {null}
    </Part>
  ),
  p: ({ children }) => <Paragraph>{children}</Paragraph>,
  ul: ({ children }) => <List>{children}</List>,
  table: ({ children }) => (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="Table" my="3">
      <Table.Root size="sm">{children}</Table.Root>
    </Box>
  ),
  thead: ({ children }) => <Table.Header>{children}</Table.Header>,
  tbody: ({ children }) => <Table.Body>{children}</Table.Body>,
  tr: ({ children }) => <Table.Row>{children}</Table.Row>,
  th: ({ children }) => <Table.ColumnHeader>{children}</Table.ColumnHeader>,
  td: ({ children }) => <Table.Cell verticalAlign="top">{children}</Table.Cell>,
};

/** Every formula, figure and source behind the answers. */
export function MethodView() {
  const { data, error } = useQuery(q.method());
  return (
    <Page maxW="1160px" data-testid="method">
      <Trouble error={error} />
      {data ? (
        <Markdown remarkPlugins={[gfm]} components={pieces}>
          {data.text}
        </Markdown>
      ) : (
        !error && "Loading…"
      )}
    </Page>
  );
}
