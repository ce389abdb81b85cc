import { Box, chakra, Flex, Grid, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import type { Catalogue, Schemas } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { LevelKey, LevelSign, levels, levelWords } from "./level";
import { TeachNav } from "./nav";
import { Phones } from "./phones";

type Board = Schemas["Board"];

/** Learners by knots: who can what, and what the class is taught next. */
export function BoardView() {
  const catalogue = useCatalogue().data;
  const [params, change] = useAddress();
  const group = params.get("group") ?? "";
  const chosen = params.get("set") ?? "";
  const board = useQuery(q.board(group));
  useEffect(() => {
    document.title = "Class board · Oarweed";
  }, []);
  const set = catalogue?.sets.find((s) => s.id === chosen);
  const knots = catalogue && board.data ? columns(catalogue, board.data, set?.knots) : [];
  return (
    <Page maxW="1680px">
      <TeachNav />
      <Flex align="center" gap="3" wrap="wrap" mt="3">
        <Title>
          {board.data
            ? `${count(board.data.rows.length, "learner")}, ${count(knots.length, "knot")}`
            : "Board"}
        </Title>
        <Box flex="1" />
        <Select
          label="Class"
          first="everybody"
          value={group}
          set={(g) => change({ group: g })}
          list={(board.data?.groups ?? []).map((g) => ({ id: g, name: g }))}
        />
        <Select
          label="Knots"
          first="knots tied so far"
          value={chosen}
          set={(s) => change({ set: s })}
          list={catalogue?.sets ?? []}
        />
        <Phones group={group} />
        <Press look="main" asChild>
          <Link to={`/teach/class${group ? `?group=${encodeURIComponent(group)}` : ""}`}>Start a round</Link>
        </Press>
      </Flex>
      <Trouble error={board.error} />
      {board.data?.rows.length === 0 && (
        <Card mt="4" kind="note">
          Nobody is in this class yet.{" "}
          <Link to="/teach/people" className="link strong">
            Add learners, or take in a list
          </Link>
          . Then start a round: one clock for all, one touch on a name when that learner is done.
        </Card>
      )}
      {catalogue && board.data && board.data.rows.length > 0 && (
        <Grid
          templateColumns={{ base: "minmax(0, 1fr)", xl: "minmax(0, 1fr) 330px" }}
          gap="5"
          mt="3"
          alignItems="start"
        >
          <Box minW="0">
            <Cells rows={board.data.rows} knots={knots} next={board.data.next[0]?.knot} />
            <Box mt="3">
              <LevelKey />
            </Box>
          </Box>
          <Next list={board.data.next} group={group} />
        </Grid>
      )}
    </Page>
  );
}

const count = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;

/** The knots of a set; else those that anybody has tied, the most tied first, and what comes next. */
function columns(c: Catalogue, board: Board, set?: string[]) {
  const ids =
    set ??
    c.knots
      .map((k) => ({ id: k.id, n: board.rows.filter((r) => r.cells[k.id]).length }))
      .filter((x) => x.n > 0)
      .sort((a, b) => b.n - a.n)
      .map((x) => x.id);
  const next = board.next[0]?.knot;
  const all = next && !ids.includes(next) && !set ? [...ids, next] : ids;
  return all.flatMap((id) => c.knots.find((k) => k.id === id) ?? []);
}

const Corner = chakra("th", {
  base: { position: "sticky", left: "0", bg: "paper", zIndex: "1", textAlign: "left" },
});

/** The board itself: a table whose first column stays in sight. */
function Cells(p: { rows: Board["rows"]; knots: Catalogue["knots"]; next: string | undefined }) {
  const { rows, knots, next } = p;
  const lit = (id: string) => (id === next ? "amberWash" : undefined);
  return (
    <Box overflowX="auto" position="relative" role="region" aria-label="Board" tabIndex={0}>
      <Table.Root data-testid="board" w="auto" minW="100%">
        <thead>
          <tr>
            <Corner scope="col">
              <Box position="absolute" clipPath="inset(50%)">
                Learner
              </Box>
            </Corner>
            {knots.map((k) => (
              <Box
                as="th"
                key={k.id}
                bg={lit(k.id)}
                minW="80px"
                maxW="110px"
                px="1"
                pt="1"
                verticalAlign="bottom"
                fontWeight="700"
                fontSize="15px"
                lineHeight="1.15"
              >
                <Link to={`/teach/class?knot=${k.id}`} title={`Start a round: ${k.name}`}>
                  <Drawing id={k.id} name={k.name} drawn={k.drawn} w="70px" h="52px" mx="auto" aria-hidden />
                  {k.name}
                </Link>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <Box as="tr" key={r.id} borderTop="1px solid" borderColor="rule" data-row={r.name}>
              <Corner scope="row">
                <Box
                  asChild
                  minH="48px"
                  display="inline-flex"
                  alignItems="center"
                  fontSize="18px"
                  fontWeight="700"
                  pr="3"
                >
                  <Link to={`/teach/people/${r.id}`}>{r.name}</Link>
                </Box>
              </Corner>
              {knots.map((k) => {
                const cell = r.cells[k.id];
                return (
                  <Box
                    as="td"
                    key={k.id}
                    bg={lit(k.id)}
                    textAlign="center"
                    py="1"
                    data-cell={`${r.name} ${k.id}`}
                  >
                    <Flex
                      direction="column"
                      align="center"
                      color={cell?.fault ? "flare" : cell?.level ? "ink" : "quiet"}
                      fontWeight={cell?.fault ? 700 : 400}
                      fontSize="14.5px"
                      lineHeight="1.1"
                      title={`${r.name}, ${k.name}: ${levelWords(cell)}`}
                    >
                      <LevelSign level={cell?.level ?? 0} fault={cell?.fault} />
                      {levels[cell?.level ?? 0]}
                      {cell?.fault ? (
                        <Box position="absolute" clipPath="inset(50%)">
                          {levelWords(cell)}
                        </Box>
                      ) : null}
                    </Flex>
                  </Box>
                );
              })}
            </Box>
          ))}
        </tbody>
      </Table.Root>
    </Box>
  );
}

/** What the class is taught next, and why. */
function Next({ list, group }: { list: Board["next"]; group: string }) {
  const [first, ...rest] = list;
  const round = (knot: string) =>
    `/teach/class?knot=${knot}${group ? `&group=${encodeURIComponent(group)}` : ""}`;
  return (
    <Card p="4" borderColor="ink" borderWidth="2px" data-testid="next">
      <Box className="head" fontSize="24px">
        Teach next
      </Box>
      {!first && (
        <Box mt="1">
          Let them tie a few knots: what comes next follows from what they can, and from their faults.
        </Box>
      )}
      {first && (
        <>
          <Flex gap="3" mt="2" align="center">
            <Drawing id={first.knot} name={first.name} drawn w="110px" h="96px" flex="none" aria-hidden />
            <Box>
              <Box className="head" fontSize="20px">
                {first.name}
              </Box>
              {first.says}
            </Box>
          </Flex>
          <Flex gap="2" mt="3" wrap="wrap">
            <Press look="main" asChild>
              <Link to={`/knots/${first.knot}/show`}>▶ Show it</Link>
            </Press>
            <Press asChild>
              <Link to={round(first.knot)}>Round</Link>
            </Press>
            <Press asChild>
              <Link to={`/teach/plan?add=${first.knot}`}>Put in a plan</Link>
            </Press>
          </Flex>
        </>
      )}
      {rest.length > 0 && (
        <Box mt="4" borderTop="1px solid" borderColor="rule" pt="3">
          <Box fontWeight="700">Then</Box>
          {rest.map((n) => (
            <Box asChild key={n.knot} display="flex" gap="2" alignItems="center" minH="52px" mt="1">
              <Link to={round(n.knot)}>
                <Drawing id={n.knot} name={n.name} drawn w="52px" h="44px" flex="none" aria-hidden />
                <Box lineHeight="1.2">
                  <strong>{n.name}</strong>
                  <Box fontSize="15px">{n.says}</Box>
                </Box>
              </Link>
            </Box>
          ))}
        </Box>
      )}
    </Card>
  );
}
