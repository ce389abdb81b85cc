import { Box, Flex, Grid, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { useSetBench } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { poundsPerKN } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Curves } from "./curves";
import { Pulls } from "./pulls";
import { saveSVG } from "./save";
import { Strengths } from "./strengths";
import { Results as Taken } from "./table";

type Page = Schemas["SeriesPage"];

/** What all pulls say: words first, figures behind "why". */
export function Results({ page }: { page: Page }) {
  const [why, setWhy] = useState(false);
  const [table, setTable] = useState(false);
  const picture = () => {
    const svg = document.querySelector<SVGSVGElement>("svg[data-strengths]");
    if (svg) saveSVG(svg, page.series.name);
  };
  return (
    <Box px={{ base: 3, md: 6 }} pb="8">
      <Grid
        borderTop="2px solid"
        borderColor="ink"
        pt="4"
        gap="6"
        templateColumns={{ base: "1fr", lg: "minmax(0, 460px) minmax(0, 1fr)" }}
      >
        <Box data-result="">
          <Box as="h2" className="head" fontSize="2xl">
            {page.head}
          </Box>
          {page.says.map((s) => (
            <Box key={s} mt="1">
              {s}
            </Box>
          ))}
          {page.ends.map(
            (e) =>
              e.yardstick && (
                <Box key={e.name} mt="1">
                  {e.name}: {e.yardstick}
                </Box>
              ),
          )}
          <Flex gap="2" mt="2" wrap="wrap">
            {page.pulls.length > 0 && (
              <>
                <Press small aria-expanded={why} onClick={() => setWhy(!why)}>
                  Why? The figures
                </Press>
                <Press small onClick={picture}>
                  Picture
                </Press>
                <Press small asChild>
                  <a href={`/api/v1/series/${page.series.id}/pulls.csv`} download={`${page.series.name}.csv`}>
                    Table
                  </a>
                </Press>
              </>
            )}
            <Press small asChild>
              <a href={`/api/v1/series/${page.series.id}`} download={`${page.series.name}.json`}>
                Specimens as JSON
              </a>
            </Press>
            <Press small onClick={() => setTable(true)}>
              From a table
            </Press>
            <Press small asChild>
              <a
                href={`/api/v1/series/${page.series.id}/labels.pdf?at=${encodeURIComponent(location.origin)}`}
                target="_blank"
                rel="noreferrer"
              >
                Labels
              </a>
            </Press>
          </Flex>
        </Box>
        <Strengths ends={page.ends} yardstick={page.series.yardstick_kn} />
      </Grid>
      {table && <Taken series={page.series.id} close={() => setTable(false)} />}
      <Wraps page={page} />
      {why && <Figures page={page} />}
      <Pulls page={page} />
    </Box>
  );
}

/** Where wraps were compared, one count can be taken over into the choice. */
function Wraps({ page }: { page: Page }) {
  const { data } = useQuery(q.bench());
  const save = useSetBench();
  const lb = (page.series.line.label_kn ?? page.line_kn?.likely ?? 0) * poundsPerKN;
  const counts = page.ends.filter((e) => e.wraps);
  if (!data || counts.length < 2 || lb <= 0) return null;
  const taught = data.wraps?.find((w) => w.knot === counts[0]?.knot && Math.abs(w.lb - lb) < 0.01 * lb);
  const teach = (knot: string, n: number | undefined) => {
    const others = data.wraps?.filter((w) => w !== taught) ?? [];
    save.mutate({ ...data, wraps: n ? [...others, { knot, lb: Math.round(100 * lb) / 100, n }] : others });
  };
  return (
    <Flex mt="3" gap="2" wrap="wrap" align="center" data-wraps="">
      <Box>In line of about this strength the Rig asks for:</Box>
      {counts.map((e) => (
        <Press key={e.name} small aria-pressed={taught?.n === e.wraps} onClick={() => teach(e.knot, e.wraps)}>
          {e.wraps} wraps
        </Press>
      ))}
      <Press small aria-pressed={!taught} onClick={() => teach("", undefined)}>
        the usual
      </Press>
      <Trouble error={save.error} />
    </Flex>
  );
}

const kN = (v: number | null | undefined) => (v == null ? "–" : v.toPrecision(3));
const span = (low: number | null | undefined, high: number | null | undefined) =>
  low == null && high == null ? "" : ` (${low == null ? "?" : kN(low)} to ${high == null ? "?" : kN(high)})`;

function Figures({ page }: { page: Page }) {
  return (
    <Grid mt="4" gap="6" templateColumns={{ base: "1fr", lg: "minmax(0, 1fr) minmax(0, 560px)" }}>
      <Box overflowX="auto">
        <Table.Root>
          <Table.Header>
            <Table.Row>
              <Table.ColumnHeader>knot</Table.ColumnHeader>
              <Table.ColumnHeader>pulls, gave</Table.ColumnHeader>
              <Table.ColumnHeader>middle, kN</Table.ColumnHeader>
              <Table.ColumnHeader>one in twenty below, kN</Table.ColumnHeader>
              <Table.ColumnHeader>shape</Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {page.ends.map((e) => (
              <Table.Row key={e.name}>
                <Table.Cell>{e.name}</Table.Cell>
                <Table.Cell>
                  {e.group.n}, {e.group.failures}
                </Table.Cell>
                <Table.Cell>
                  {kN(e.group.median_kn)}
                  {span(e.group.median_kn_low, e.group.median_kn_high)}
                </Table.Cell>
                <Table.Cell>
                  {kN(e.group.p5_kn)}
                  {span(e.group.p5_kn_low, e.group.p5_kn_high)}
                </Table.Cell>
                <Table.Cell>
                  {kN(e.group.shape)}
                  {span(e.group.shape_low, e.group.shape_high)}
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
        <Flex direction="column" gap="1" mt="3" fontSize="md">
          <Box>
            Weibull by maximum likelihood, with what held counted as at least; in brackets the 90 % interval.
          </Box>
          {page.logrank && page.logrank.df > 0 && (
            <Box>
              Log-rank: χ² {page.logrank.chi2.toFixed(2)} on {page.logrank.df}, so that chance alone would do
              as much in {Math.max(0.1, 100 * page.logrank.p).toPrecision(2)} of a hundred such series.
            </Box>
          )}
          {page.ends.map((e) => e.house_says && <Box key={e.name}>{e.house_says}</Box>)}
        </Flex>
      </Box>
      <Curves ends={page.ends} />
    </Grid>
  );
}
