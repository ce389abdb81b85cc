import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Catalogue, Rig } from "../api/client";
import { useCard, useCatalogue, useShackle } from "../api/hooks";
import { phrases } from "../rig/phrases";
import { Sentence } from "../rig/sentence";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { length, seconds } from "../ui/format";
import { Cautions, Trouble } from "../ui/notes";
import { HoldView } from "./hold";

/** Jobs that are more than a knot. */
export function JobList() {
  const { data, error } = useCatalogue();
  return (
    <Box as="main" w="100%" maxW="1000px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Box as="h1" fontSize="30px">
        Jobs
      </Box>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(300px, 100%), 1fr))" gap="3" mt="3">
        {data?.procedures.map((p) => (
          <Tile key={p.id} to={`/jobs/${p.id}`} name={p.name} text={p.when} />
        ))}
        {data && (
          <Tile
            to="/jobs/turns"
            name="Turns and hand force"
            text="How many turns, eights or twists hold a load, and what the hand still has to hold."
          />
        )}
        {data && (
          <Tile
            to="/jobs/soft-shackle"
            name="Make a soft shackle"
            text="Clamp and stopper out of one short cord: which go together."
          />
        )}
      </Grid>
    </Box>
  );
}

function Tile({ to, name, text }: { to: string; name: string; text: string }) {
  return (
    <Link to={to}>
      <Box
        p="4"
        h="100%"
        bg="sheet"
        border="1.5px solid"
        borderColor="rule"
        borderRadius="12px"
        _hover={{ borderColor: "kelp", boxShadow: "var(--shadow)" }}
      >
        <Box className="head" fontSize="19px">
          {name}
        </Box>
        <Box color="quiet">{text}</Box>
      </Box>
    </Link>
  );
}

/** One job, step by step, with what is worked out for the lines at hand. */
export function JobView() {
  const { id = "" } = useParams();
  const catalogue = useCatalogue().data;
  if (id === "soft-shackle") return <SoftShackle />;
  if (id === "turns") return <HoldView />;
  if (!catalogue) return <Box p="6">Loading…</Box>;
  return <Job key={id} id={id} catalogue={catalogue} />;
}

function Job({ id, catalogue }: { id: string; catalogue: Catalogue }) {
  const needs = catalogue.procedures.find((p) => p.id === id)?.needs;
  const start = catalogue.templates.find((t) => needs && t.rig.chain[1]?.joint?.task === needs)?.rig;
  const [rig, setRig] = useState<Rig | undefined>(start);
  const { data: card, error } = useCard(id, rig);
  return (
    <Box as="main" w="100%" maxW="860px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Trouble error={error} />
      {card && (
        <>
          <Box as="h1" fontSize={{ base: "26px", md: "32px" }}>
            {card.name}
          </Box>
          <Box color="quiet" mb="3">
            {card.when}
          </Box>
          {card.cautions.length > 0 && (
            <Box bg="flareWash" border="2px solid" borderColor="flare" borderRadius="10px" p="3" mb="4">
              <Cautions list={card.cautions} />
            </Box>
          )}
          {rig && (
            <Box bg="sheet" border="1.5px solid" borderColor="rule" borderRadius="10px" p="3" mb="4">
              <Sentence parts={words(phrases(rig, catalogue))} change={setRig} />
            </Box>
          )}
          <Flex as="ol" direction="column" gap="3" listStyleType="none">
            {card.steps.map((s, i) => (
              <Flex
                as="li"
                key={s.says}
                gap="4"
                align="center"
                bg="sheet"
                border="1.5px solid"
                borderColor="rule"
                borderRadius="12px"
                p="3"
              >
                <Box className="head" fontSize="30px" color="amber" minW="32px" textAlign="center">
                  {i + 1}
                </Box>
                <Box flex="1" fontSize={{ base: "17px", md: "19px" }}>
                  {s.says}
                </Box>
                {s.knot && (
                  <Link to={`/knots/${s.knot}`} aria-label="See the knot">
                    <Drawing id={s.knot} name={s.knot} drawn w="88px" h="76px" />
                  </Link>
                )}
              </Flex>
            ))}
          </Flex>
          {card.notes.length > 0 && (
            <Box mt="4" bg="amberWash" borderRadius="10px" p="3" data-testid="notes">
              {card.notes.map((n) => (
                <Box key={n} py="0.5">
                  {n}
                </Box>
              ))}
              <Evidence
                tag="computed"
                source="riding-turn theory and the capstan equation at the lowest friction expected; friction from memory"
              />
            </Box>
          )}
          <Back />
        </>
      )}
    </Box>
  );
}

/** The words of the sentence that a job needs: the two lines, wet or dry, the load. */
function words(p: ReturnType<typeof phrases>) {
  return [
    "The loaded line is ",
    p.other_size,
    " ",
    p.other_kind,
    ", the other ",
    p.line_size,
    " ",
    p.line_kind,
    ", ",
    p.wet,
    ", and the load is ",
    p.load,
    ".",
  ].filter((x) => x !== undefined);
}

function Back() {
  return (
    <Box mt="5" className="no-print">
      <Link to="/jobs">
        <Press as="span">All jobs</Press>
      </Link>
    </Box>
  );
}

const mark = { holds: "✓", marginal: "▲", "pulls through": "✕" } as const;
const tint = { holds: "glassWash", marginal: "amberWash", "pulls through": "flareWash" } as const;

/** Every clamp with every stopper: which go together. */
function SoftShackle() {
  const [typed, setTyped] = useState("6 mm");
  const { data, error } = useShackle(typed);
  return (
    <Box as="main" w="100%" maxW="1160px" mx="auto" px={{ base: 3, md: 6 }} py="5">
      <Box as="h1" fontSize="30px">
        Soft shackle
      </Box>
      <Box color="quiet">
        A clamp closes on the tails, a stopper keeps them from running out. The stopper must be a fifth
        bulkier than the clamp leaves open.
      </Box>
      {data && (
        <Box mt="3">
          <Cautions list={data.cautions} />
        </Box>
      )}
      <label>
        <Flex mt="3" gap="3" align="center">
          Cord
          <input
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            style={{
              minHeight: 44,
              width: 110,
              padding: "0 10px",
              border: "1.5px solid var(--ink)",
              borderRadius: 8,
              background: "var(--sheet)",
            }}
          />
          <Evidence
            tag="memory"
            source="openings and bulks are our own estimates, from memory: pull yours before you trust it"
          />
        </Flex>
      </label>
      <Box mt="2">
        <Trouble error={error} />
      </Box>
      {data && (
        <Box overflowX="auto" mt="3">
          <table
            data-testid="shackle"
            className="matrix"
            style={{ borderCollapse: "separate", borderSpacing: 6, width: "100%" }}
          >
            <thead>
              <tr>
                <th scope="col" style={{ textAlign: "left" }}>
                  Clamp ↓ Stopper →
                </th>
                {data.rows[0]?.cells.map((c) => (
                  <th
                    key={c.knot}
                    scope="col"
                    style={{ fontSize: 15, textAlign: "left", verticalAlign: "bottom" }}
                  >
                    {c.name}
                    <div style={{ fontWeight: 400 }}>{length(c.bulk_mm)}</div>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.rows.map((r) => (
                <tr key={r.knot}>
                  <th scope="row" style={{ textAlign: "left", fontWeight: 400, minWidth: 150 }}>
                    <Flex align="center" gap="2">
                      <Drawing id={r.knot} name={r.name} drawn w="64px" h="54px" flex="none" />
                      <Box>
                        <Link
                          to={`/knots/${r.knot}`}
                          style={{ fontWeight: 700, textDecoration: "underline" }}
                        >
                          {r.name}
                        </Link>
                        <div style={{ fontSize: 14 }}>leaves {length(r.opening_mm)}</div>
                      </Box>
                    </Flex>
                  </th>
                  {r.cells.map((c) => (
                    <td
                      key={c.knot}
                      title={c.says}
                      data-column={`${c.name}, ${length(c.bulk_mm)}`}
                      style={{ padding: 0, verticalAlign: "top" }}
                    >
                      <Box
                        bg={tint[c.word]}
                        borderRadius="8px"
                        p="2"
                        minH="64px"
                        fontSize="14.5px"
                        data-word={c.word}
                      >
                        <strong>
                          {mark[c.word]} {c.word}
                        </strong>
                        <div>
                          {seconds(c.seconds)}, {length(c.cord_m * 1000)} of cord
                        </div>
                        {c.first && <div>{c.first}</div>}
                      </Box>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {data.rows
            .filter((r) => r.never)
            .map((r) => (
              <Box key={r.knot} mt="2">
                <strong>{r.name}:</strong> {r.never}
              </Box>
            ))}
        </Box>
      )}
      <Back />
    </Box>
  );
}
