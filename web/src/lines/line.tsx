import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useCatalogue } from "../api/hooks";
import { withOwn } from "../rig/document";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, range, reach } from "../ui/format";
import { Label } from "../ui/label";
import { useMedia } from "../ui/media";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { LineSheet } from "./edit";
import { LookSheet } from "./look";
import { LinesNav } from "./nav";
import { type LinePage, lq } from "./queries";
import { RopePiece } from "./rope";
import { UseSheet } from "./use-sheet";
import { byLabel, day, outcomes, parts, states } from "./words";

/** One line with all that happened to it. */
export function LineView() {
  const { code = "" } = useParams();
  const { data: l, error } = useQuery(lq.line(code));
  const catalogue = useCatalogue().data;
  const go = useNavigate();
  const [sheet, setSheet] = useState<"edit" | "look" | "use" | "label">();
  const close = () => setSheet(undefined);
  return (
    <Page maxW="1180px">
      <LinesNav />
      <Trouble error={error} />
      {l && (
        <>
          <Flex gap="3" align="center" wrap="wrap">
            <Title>{l.name}</Title>
            <Box color="quiet" fontSize="lg">
              {l.code}
            </Box>
            <Box flex="1" />
            <Press look="main" onClick={() => setSheet("look")}>
              Look it over
            </Press>
            <Press onClick={() => setSheet("use")}>Log a use</Press>
            <Press onClick={() => setSheet("edit")}>Change</Press>
            <Press onClick={() => setSheet("label")}>Label</Press>
          </Flex>
          <Along line={l} />
          {l.says.map((s, i) => (
            <Box
              key={s}
              fontWeight={i === 0 && (l.state.retire || l.state.look_due) ? 700 : 400}
              color={i === 0 && l.state.retire ? "flare" : undefined}
            >
              {s}
            </Box>
          ))}
          <Grid templateColumns={{ base: "1fr", lg: "360px minmax(0, 1fr)" }} gap="6" mt="4">
            <Box>
              <Card>
                <Fact name="Is">{l.called}</Fact>
                <Fact name="New">
                  {range(l.state.new_kn, (v) => force(v, byLabel(l)))}
                  <Evidence tag={l.state.new_kn.tag} source={l.state.new_kn.source} />
                </Fact>
                <Fact name="Now">
                  {range(l.state.now_kn, (v) => force(v, byLabel(l)))}
                  <Evidence
                    tag="computed"
                    source="wet, and by its wear: 0, 10, 25, 50 % off (our own rule)"
                  />
                </Fact>
                {l.length_m ? <Fact name="Left">{reach(l.length_m)}</Fact> : null}
                {l.lives && <Fact name="Lives">{l.lives}</Fact>}
                {l.bought && (
                  <Fact name="Bought">
                    {day(l.bought)}
                    {l.state.years ? `, ${l.state.years.toFixed(1)} years` : ""}
                  </Fact>
                )}
                <Fact name="Used">
                  {l.state.trips} times, {Math.round(l.state.hours)} h
                </Fact>
                <Fact name="Look by">{day(l.state.look_by)}</Fact>
                {l.retire_by && <Fact name="Retire by">{day(l.retire_by)}</Fact>}
                {l.note && <Fact name="Note">{l.note}</Fact>}
              </Card>
              <Flex gap="2" mt="3" wrap="wrap">
                <Press
                  onClick={() => {
                    const start = catalogue?.tasks.find((t) => t.id === (byLabel(l) ? "fly" : "moor"));
                    if (catalogue && start) go(withOwn(l, start, catalogue));
                  }}
                >
                  A knot for it
                </Press>
                <Press asChild>
                  <Link to="/bench">Pull it</Link>
                </Press>
              </Flex>
              {l.knots.length > 0 && (
                <Part title="Knots in it" mt="4">
                  {l.knots.map((k) => (
                    <Box key={k.of}>
                      <Link to={`/knots/${k.of}`} className="link">
                        {catalogue?.knots.find((x) => x.id === k.of)?.name ?? k.of}
                      </Link>
                      , {k.n} {k.n === 1 ? "time" : "times"}
                      {k.worst ? `, ${outcomes.find((o) => o.id === k.worst)?.name} ${k.by[k.worst]}` : ""}
                    </Box>
                  ))}
                </Part>
              )}
            </Box>
            <Part title="History">
              {l.history.length === 0 && <Box color="quiet">Nothing yet.</Box>}
              <Box role={l.history.length > 0 ? "list" : undefined} aria-label="History">
                {l.history.map((e) => (
                  <Flex
                    key={e.at + e.says}
                    role="listitem"
                    gap="3"
                    py="2"
                    borderTop="1px solid"
                    borderColor="rule"
                    wrap="wrap"
                  >
                    <Box w="110px" color="quiet">
                      {day(e.at)}
                    </Box>
                    <Box w="28px" textAlign="center" fontWeight="700" aria-hidden="true">
                      {e.kind === "look"
                        ? e.grade
                        : (outcomes.find((o) => o.id === e.outcome)?.sign ??
                          { leader: "✂", pull: "⇔" }[e.kind as string] ??
                          "•")}
                    </Box>
                    <Box
                      flex="1"
                      minW="200px"
                      color={e.grade >= 3 || (e.outcome && e.outcome !== "held") ? "flare" : undefined}
                    >
                      {e.to ? (
                        <Link to={e.to} className="link">
                          {e.says}
                        </Link>
                      ) : (
                        e.says
                      )}
                    </Box>
                    {Object.entries(e.photos ?? {}).map(([of, id]) => (
                      <a key={of} href={`/api/v1/photos/${id}`}>
                        <img src={`/api/v1/photos/${id}`} alt={of} width="96" style={{ borderRadius: 6 }} />
                      </a>
                    ))}
                  </Flex>
                ))}
              </Box>
            </Part>
          </Grid>
          {sheet === "edit" && <LineSheet line={l} close={close} />}
          {sheet === "look" && <LookSheet line={l} close={close} />}
          {sheet === "use" && <UseSheet line={l.code} close={close} />}
          {sheet === "label" && (
            <Label
              what={l.name}
              code={l.code ?? ""}
              to={`/lines/${l.code}`}
              lines={[
                l.called,
                ...(l.bought ? [`bought ${day(l.bought)}`] : []),
                ...(l.retire_by ? [`retire by ${day(l.retire_by)}`] : []),
              ]}
              close={close}
            />
          )}
        </>
      )}
    </Page>
  );
}

const Fact = ({ name, children }: { name: string; children: React.ReactNode }) => (
  <Flex gap="2" py="1" align="baseline">
    <Box w="84px" color="quiet" flex="none">
      {name}
    </Box>
    <Box>{children}</Box>
  </Flex>
);

/** The line along its length, with the places where something was found or happened. */
function Along({ line: l }: { line: LinePage }) {
  const places = l.history.filter((e) => e.place_m && (e.grade > 0 || (e.outcome && e.outcome !== "held")));
  const long = l.length_m || Math.max(0, ...places.map((e) => e.place_m ?? 0)) * 1.25 || 0;
  const last = l.looks?.at(-1);
  const narrow = useMedia("(max-width: 600px)");
  return (
    <Box my="2">
      <RopePiece
        w={narrow ? 380 : 1100}
        mm={l.thick_mm}
        colour={l.colour}
        made={l.construction}
        worn={places.map((e) => ({
          at: (e.place_m ?? 0) / long,
          grade: Math.max(e.grade, e.outcome ? 2 : 0),
        }))}
        label={
          places.length > 0
            ? `Worn at ${places.map((e) => `${e.place_m} m`).join(", ")}`
            : "No worn place is known on it"
        }
      />
      {long > 0 && (
        <Flex justify="space-between" color="quiet" fontSize="sm" position="relative" h="22px">
          <span>0</span>
          {places.slice(0, 6).map((e) => (
            <Box
              key={e.at + e.says}
              position="absolute"
              left={`${(100 * (e.place_m ?? 0)) / long}%`}
              transform="translateX(-50%)"
              fontWeight="700"
              color="ink"
            >
              {e.place_m} m
            </Box>
          ))}
          <span>{reach(long)}</span>
        </Flex>
      )}
      {last && (
        <Flex gap="3" wrap="wrap" fontSize="sm" color="quiet">
          {parts
            .filter((p) => last.grades[p.id] !== undefined)
            .map((p) => (
              <span key={p.id}>
                {p.name.toLowerCase()}: {states[last.grades[p.id] ?? 0]}
              </span>
            ))}
        </Flex>
      )}
    </Box>
  );
}
