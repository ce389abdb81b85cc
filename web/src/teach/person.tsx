import { Box, Flex, Grid, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { type Attempt, api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { seconds } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { DueRows } from "./due";
import { HomeSheet } from "./home-sheet";
import { LearnerForm } from "./learner-form";
import { LevelSign, levels, levelWords } from "./level";
import { TeachNav } from "./nav";
import { Times } from "./times";

type Person = Schemas["Person"];

/** One learner: what he can, times, faults, what is due; to be printed as a record. */
export function PersonView() {
  const id = Number(useParams().id);
  const { data, error } = useQuery(q.person(id));
  const attempts = useQuery(q.attemptsOf(id)).data?.attempts ?? [];
  useEffect(() => {
    if (data) document.title = `${data.learner.name} · Oarweed`;
  }, [data]);
  return (
    <Page maxW="1300px">
      <TeachNav />
      <Trouble error={error} />
      {data && <Shown person={data} attempts={attempts} />}
    </Page>
  );
}

function Shown({ person, attempts }: { person: Person; attempts: Attempt[] }) {
  const { learner: l, standings, due, notes } = person;
  const [edit, setEdit] = useState(false);
  const about = [
    l.groups?.join(", "),
    l.craft,
    l.course,
    l.hand && `${l.hand} hand`,
    l.rope_m ? `line ${l.rope_m} m` : "",
  ]
    .filter(Boolean)
    .join(" · ");
  return (
    <>
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Title>{l.name}</Title>
        <Box color="quiet">{about}</Box>
        <Box flex="1" />
        <Flex gap="2" wrap="wrap" className="no-print">
          <Press onClick={() => setEdit(true)}>Change</Press>
          <Press onClick={() => print()}>Print the record</Press>
          <HomeSheet name={l.name} due={due} />
        </Flex>
      </Flex>
      {l.note && <Box mt="1">{l.note}</Box>}
      {notes.map((n) => (
        <Card key={n} kind="note" mt="2">
          {n}
        </Card>
      ))}
      <Grid
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1.5fr) minmax(0, 1fr)" }}
        gap="6"
        mt="4"
      >
        <Box minW="0">
          <Part title="What is tied">
            {standings.length === 0 && (
              <Box>Nothing yet. Start a round, and touch the name when the knot is done.</Box>
            )}
            <Standings list={standings} />
          </Part>
          <Part title="Times">
            <Times attempts={attempts} standings={standings} />
          </Part>
        </Box>
        <Box minW="0">
          <Part title={due.length > 0 ? "Due now" : "Nothing is due"}>
            <DueRows list={due} />
          </Part>
          <Faults attempts={attempts} />
        </Box>
      </Grid>
      {edit && <Edit learner={l} close={() => setEdit(false)} />}
    </>
  );
}

function Standings({ list }: { list: Person["standings"] }) {
  return (
    <Box overflowX="auto">
      <Table.Root w="100%">
        <thead>
          <tr>
            {["Knot", "Level", "Best", "Wanted", "Tried", "Hands", "Next"].map((h) => (
              <Box as="th" key={h} textAlign="left" color="quiet" fontWeight="400" pr="3" fontSize="15px">
                {h}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {list.map((s) => (
            <Box as="tr" key={s.knot} borderTop="1px solid" borderColor="rule">
              <Box as="td" py="1" pr="3" fontWeight="700">
                <Link to={`/knots/${s.knot}`}>{s.name}</Link>
              </Box>
              <Box as="td" pr="3">
                <Flex
                  align="center"
                  gap="1"
                  title={levelWords({ level: s.level, fault: s.fault ? (s.repeated ? 2 : 1) : 0 })}
                >
                  <LevelSign level={s.level} fault={s.fault ? (s.repeated ? 2 : 1) : 0} size={28} />
                  {levels[s.level]}
                </Flex>
              </Box>
              <Box as="td" pr="3">
                {s.best_s ? seconds(s.best_s) : "–"}
              </Box>
              <Box as="td" pr="3" color="quiet">
                {seconds(s.target_s)}
              </Box>
              <Box as="td" pr="3">
                {s.attempts}
              </Box>
              <Box as="td" pr="3">
                {[s.left_ok && "left", s.right_ok && "right"].filter(Boolean).join(", ") || "–"}
              </Box>
              <Box as="td">
                {s.memory.due
                  ? new Date(s.memory.due).toLocaleDateString(undefined, { day: "numeric", month: "short" })
                  : "–"}
              </Box>
            </Box>
          ))}
        </tbody>
      </Table.Root>
    </Box>
  );
}

/** Which faults, how often, at which knot. */
function Faults({ attempts }: { attempts: Attempt[] }) {
  const counts = new Map<string, { knot: string; fault: string; n: number }>();
  for (const a of attempts) {
    if (a.outcome !== "fault" || !a.fault) continue;
    const key = `${a.knot} ${a.fault}`;
    counts.set(key, { knot: a.knot, fault: a.fault, n: (counts.get(key)?.n ?? 0) + 1 });
  }
  const list = [...counts.values()].sort((a, b) => b.n - a.n);
  if (list.length === 0) return null;
  return (
    <Part title="Faults">
      {list.map((f) => (
        <FaultRow key={`${f.knot} ${f.fault}`} {...f} />
      ))}
    </Part>
  );
}

function FaultRow({ knot, fault, n }: { knot: string; fault: string; n: number }) {
  const page = useQuery(q.knot(knot)).data;
  const f = page?.faults.find((x) => x.code === fault);
  return (
    <Box py="1" borderTop="1px solid" borderColor="rule">
      <strong>
        {n} × {f?.name ?? fault}
      </strong>
      , {page?.name.toLowerCase() ?? knot}
      {f && <Box color="quiet">{f.mend}</Box>}
    </Box>
  );
}

/** Change, merge, archive, erase. */
function Edit({ learner, close }: { learner: Person["learner"]; close: () => void }) {
  const go = useNavigate();
  const others = (useQuery(q.learners()).data ?? []).filter((l) => l.id !== learner.id);
  const [sure, setSure] = useState(false);
  const save = useKept((next: Person["learner"]) =>
    unwrap(
      api.PUT("/api/v1/learners/{id}", {
        params: { path: { id: learner.id }, header: { "If-Match": `"${learner.revision}"` } },
        body: next,
      }),
    ),
  );
  const erase = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/learners/{id}", { params: { path: { id } } })),
  );
  const merge = useKept((into: number) =>
    unwrap(api.POST("/api/v1/learners/{id}/merge", { params: { path: { id: learner.id } }, body: { into } })),
  );
  return (
    <Sheet open close={close} title={learner.name}>
      <LearnerForm
        learner={learner}
        error={save.error}
        save={(next) => save.mutate(next, { onSuccess: close })}
      />
      <Part title="The same person twice" mt="5">
        <Select
          label="Give all attempts to"
          first="Give all attempts to…"
          value=""
          set={(id) => id && merge.mutate(Number(id), { onSuccess: () => go(`/teach/people/${id}`) })}
          list={others.map((l) => ({ id: String(l.id), name: l.name }))}
        />
      </Part>
      <Part title="No longer here">
        <Flex gap="2" wrap="wrap">
          <Press
            onClick={() => save.mutate({ ...learner, archived: !learner.archived }, { onSuccess: close })}
          >
            {learner.archived ? "Back into class" : "Archive, and keep the record"}
          </Press>
          {sure ? (
            <Press
              look="main"
              onClick={() => erase.mutate(learner.id, { onSuccess: () => go("/teach/people") })}
            >
              Erase {learner.name} and every attempt, for good
            </Press>
          ) : (
            <Press onClick={() => setSure(true)}>Erase…</Press>
          )}
        </Flex>
        <Trouble error={erase.error ?? merge.error} />
      </Part>
    </Sheet>
  );
}
