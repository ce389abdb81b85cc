import { Box, Flex, Grid, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, conflictOf, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { Picture } from "../ui/picture";
import { GearPart } from "./gear";
import { TeachNav } from "./nav";

type Round = Schemas["PracticeQuayRound"];
type Seen = Schemas["PracticeSeen"];

const points = [
  { id: "lead", name: "lead" },
  { id: "crossings", name: "crossings" },
  { id: "lock", name: "lock or hitches" },
  { id: "tail", name: "tail" },
  { id: "neat", name: "neat" },
  { id: "lets-go", name: "can be let go" },
] as const;

/** On the quay: how others made fast, judged by learners and by the instructor; knots on gear. */
export function QuayView() {
  const rounds = useQuery(q.quayRounds());
  const [params, setParams] = useSearchParams();
  const at = Number(params.get("round")) || 0;
  const round = rounds.data?.find((r) => r.id === at);
  useEffect(() => {
    document.title = "On the quay · Oarweed";
  }, []);
  const add = useKept((name: string) =>
    unwrap(api.POST("/api/v1/quay-rounds", { body: { name, seen: [] } as unknown as Round })),
  );
  return (
    <Page maxW="1100px">
      <TeachNav />
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Title>On the quay</Title>
        <Box flex="1" />
        <Press
          look="main"
          onClick={() =>
            add.mutate(
              new Date().toLocaleDateString(undefined, { weekday: "long", day: "numeric", month: "long" }),
              {
                onSuccess: (r) => setParams({ round: String(r.id) }),
              },
            )
          }
        >
          Begin a round
        </Press>
      </Flex>
      <Box color="quiet">
        Walk along and judge how things were made fast: first a learner, then you. Where you differ is what to
        talk about.
      </Box>
      <Trouble error={rounds.error ?? add.error} />
      {round ? (
        <One key={`${round.id} ${round.revision}`} round={round} close={() => setParams({})} />
      ) : (
        <Part title="Rounds" mt="4">
          {rounds.data?.length === 0 && <Box>None yet.</Box>}
          <Grid templateColumns="repeat(auto-fill, minmax(min(300px, 100%), 1fr))" gap="3">
            {rounds.data?.map((r) => (
              <Card key={r.id} kind="link" asChild>
                <Link to={`/teach/quay?round=${r.id}`}>
                  <Box className="head" fontSize="lg">
                    {r.name}
                  </Box>
                  {r.seen.length} looked at{agreement(r.seen)}
                </Link>
              </Card>
            ))}
          </Grid>
        </Part>
      )}
      <GearPart />
    </Page>
  );
}

function agreement(seen: Seen[]): string {
  let same = 0;
  let both = 0;
  for (const s of seen)
    for (const p of points) {
      const [a, b] = [s.learner?.[p.id], s.instructor?.[p.id]];
      if (a === undefined || b === undefined) continue;
      both++;
      if (a === b) same++;
    }
  return both > 0 ? `, alike in ${same} of ${both} points` : "";
}

function One({ round, close }: { round: Round; close: () => void }) {
  const [now, set] = useState(round);
  const learners = useQuery(q.learners()).data ?? [];
  const knots = useCatalogue().data?.knots ?? [];
  const [where, setWhere] = useState("");
  const save = useKept((r: Round) =>
    unwrap(
      api.PUT("/api/v1/quay-rounds/{id}", {
        params: { path: { id: r.id }, header: { "If-Match": `"${r.revision}"` } },
        body: r,
      }),
    ),
  );
  const kept = conflictOf<Round>(save.error)?.kept;
  const change = (seen: Seen[]) => {
    const next = { ...now, seen };
    set(next);
    save.mutate(next, { onSuccess: (r) => set(r) });
  };
  const one = (i: number, part: Partial<Seen>) =>
    change(now.seen.map((s, k) => (k === i ? { ...s, ...part } : s)));
  return (
    <Part title={`${now.name}${agreement(now.seen)}`} mt="4">
      {kept && (
        <Card kind="warn">
          Somebody else changed this round.{" "}
          <Press
            small
            onClick={() => {
              set(kept);
              save.reset();
            }}
          >
            Take theirs
          </Press>
        </Card>
      )}
      {!kept && <Trouble error={save.error} />}
      {now.seen.map((s, i) => (
        <Card key={`${s.where} ${i + 1}`} mt="2" data-seen={s.where}>
          <Flex gap="3" wrap="wrap" align="center">
            <strong>{s.where}</strong>
            <Select
              label={`Knot at ${s.where}`}
              first="what is tied there"
              value={s.knot ?? ""}
              set={(knot) => one(i, { knot: knot || undefined })}
              list={knots}
            />
            <Select
              label={`Who judged ${s.where}`}
              first="who judges"
              value={String(s.learner_id ?? "")}
              set={(id) => one(i, { learner_id: Number(id) || undefined })}
              list={learners.map((l) => ({ id: String(l.id), name: l.name }))}
            />
            <Picture of={s.where} id={s.photo} learner={s.learner_id} set={(photo) => one(i, { photo })} />
          </Flex>
          {(["learner", "instructor"] as const).map((by) => (
            <Flex
              key={by}
              gap="2"
              wrap="wrap"
              mt="2"
              align="center"
              role="group"
              aria-label={`${by} on ${s.where}`}
            >
              <Box w="90px" color="quiet">
                {by === "learner" ? "learner" : "you"}
              </Box>
              {points.map((p) => {
                const v = s[by]?.[p.id];
                const differs =
                  s.learner?.[p.id] !== undefined &&
                  s.instructor?.[p.id] !== undefined &&
                  s.learner[p.id] !== s.instructor[p.id];
                return (
                  <Press
                    key={p.id}
                    small
                    borderColor={differs ? "flare" : undefined}
                    borderWidth={differs ? "2.5px" : undefined}
                    aria-label={`${p.name}: ${v === undefined ? "not looked at" : v ? "well" : "not well"}`}
                    onClick={() => {
                      const { [p.id]: _, ...rest } = s[by] ?? {};
                      one(i, {
                        [by]:
                          v === undefined ? { ...rest, [p.id]: true } : v ? { ...rest, [p.id]: false } : rest,
                      });
                    }}
                  >
                    {v === undefined ? "○" : v ? "✓" : "✕"} {p.name}
                  </Press>
                );
              })}
            </Flex>
          ))}
        </Card>
      ))}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!where.trim()) return;
          change([...now.seen, { where }]);
          setWhere("");
        }}
      >
        <Flex gap="2" mt="3">
          <Input
            aria-label="Where"
            placeholder="Which cleat, post or ring"
            value={where}
            onChange={(e) => setWhere(e.target.value)}
            maxW="320px"
          />
          <Press type="submit">Look at it</Press>
          <Press look="bare" onClick={close}>
            All rounds
          </Press>
        </Flex>
      </form>
    </Part>
  );
}
