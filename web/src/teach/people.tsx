import { Box, chakra, Flex, Input, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { api, type Learner, type Schemas, unwrap } from "../api/client";
import { useAddLearner, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { coded } from "../bench/save";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { TeachNav } from "./nav";

type Row = Schemas["PracticeRosterRow"];

/** The learners: add, group, take a list in and out. */
export function PeopleView() {
  const { data, error } = useQuery(q.learners());
  const [name, setName] = useState("");
  const [old, setOld] = useState(false);
  const add = useAddLearner();
  useEffect(() => {
    document.title = "Learners · Oarweed";
  }, []);
  const all = data ?? [];
  const list = all.filter((l) => Boolean(l.archived) === old);
  const groups = [...new Set(list.flatMap((l) => l.groups ?? []))].sort();
  return (
    <Page maxW="1100px">
      <TeachNav />
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        <Title>{old ? "Archived learners" : "Learners"}</Title>
        <Box flex="1" />
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) add.mutate(name, { onSuccess: () => setName("") });
          }}
        >
          <Flex gap="2">
            <Input
              aria-label="Name of a new learner"
              placeholder="New learner"
              value={name}
              onChange={(e) => setName(e.target.value)}
              w="180px"
            />
            <Press type="submit">Add</Press>
          </Flex>
        </form>
        {all.some((l) => l.archived) && (
          <Press look="bare" onClick={() => setOld(!old)}>
            {old ? "Those in class" : "Archived"}
          </Press>
        )}
      </Flex>
      <Trouble error={error ?? add.error} />
      {data && list.length === 0 && (
        <Card kind="note" mt="3">
          Nobody here yet. Add a name, or take in a list: a table with a name in each row, from any
          spreadsheet.
        </Card>
      )}
      {[...groups, ""].map((g) => (
        <Group key={g} name={g} list={list.filter((l) => (g ? l.groups?.includes(g) : !l.groups?.length))} />
      ))}
      <TakeIn />
      <Part title="Give out" mt="6">
        <Flex gap="2" wrap="wrap">
          {[
            ["/api/v1/roster.csv", "Learners, CSV"],
            ["/api/v1/roster.xlsx", "Learners, workbook"],
            ["/api/v1/log.csv", "All attempts, CSV"],
            ["/api/v1/log.xlsx", "All attempts, workbook"],
          ].map(([to, label]) => (
            <Press key={to} asChild>
              <a href={to} download>
                {label}
              </a>
            </Press>
          ))}
        </Flex>
      </Part>
    </Page>
  );
}

/** What the server takes of a row. */
function incoming({ learner: l }: Row, as: string | undefined): Schemas["Incoming"] {
  const { name, groups, hand, craft, course, note } = l;
  return { id: Number(as) || undefined, name, groups, hand, craft, course, note } as Schemas["Incoming"];
}

function Group({ name, list }: { name: string; list: Learner[] }) {
  if (list.length === 0) return null;
  return (
    <Part title={name || "In no class"} mt="4">
      <Flex wrap="wrap" gap="2">
        {list.map((l) => (
          <Card key={l.id} kind="link" p="2" minW="200px" asChild>
            <Link to={`/teach/people/${l.id}`}>
              <strong>{l.name}</strong>
              <Box fontSize="15px" color="quiet">
                {l.knows.length === 0 ? "no knot yet" : `${l.knows.length} knots`}
                {l.hand === "left" ? " · left-handed" : ""}
              </Box>
            </Link>
          </Card>
        ))}
      </Flex>
    </Part>
  );
}

const File = chakra("input", { base: { minH: "44px", maxW: "100%" } });

/** Takes a list in: first it is read and shown, with what is wrong and who is there already. */
function TakeIn() {
  const [rows, setRows] = useState<Row[]>();
  const [as, setAs] = useState<Record<number, string>>({});
  const [done, setDone] = useState("");
  const read = useKept((data: string) => unwrap(api.POST("/api/v1/roster/preview", { body: { data } })));
  const take = useKept((learners: Schemas["Incoming"][]) =>
    unwrap(api.POST("/api/v1/roster", { body: { learners } })),
  );
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setDone("");
    read.mutate(await coded(file), {
      onSuccess: (r) => {
        setRows(r.rows);
        // The very same name is that learner; a name that is only like one is asked about.
        setAs(
          Object.fromEntries(
            r.rows.map((x) => [x.row, x.same ? (x.like_id ? String(x.like_id) : "skip") : ""]),
          ),
        );
      },
      onError: () => setRows(undefined),
    });
  };
  const good = (rows ?? []).filter((r) => !r.trouble && as[r.row] !== "skip");
  return (
    <Part title="Take in a list" mt="6">
      <Box color="quiet">
        A CSV file or a workbook. Columns may be called name (or first name, last name), class, hand, craft,
        course, note.
      </Box>
      <File
        type="file"
        accept=".csv,.txt,.tsv,.xlsx"
        aria-label="List of learners"
        onChange={(e) => void choose(e.target.files?.[0])}
        mt="2"
      />
      <Trouble error={read.error ?? take.error} />
      {done && (
        <Card kind="good" mt="2" role="status">
          {done}
        </Card>
      )}
      {rows && (
        <Box mt="3" data-testid="roster" overflowX="auto">
          <Table.Root>
            <tbody>
              {rows.map((r) => (
                <Box
                  as="tr"
                  key={r.row}
                  borderTop="1px solid"
                  borderColor="rule"
                  bg={r.trouble ? "flareWash" : r.like ? "amberWash" : undefined}
                >
                  <Box as="td" pr="3" color="quiet">
                    row {r.row}
                  </Box>
                  <Box as="td" pr="3" py="1" fontWeight="700">
                    {r.learner.name || "–"}
                  </Box>
                  <Box as="td" pr="3">
                    {r.learner.groups?.join(", ")}
                  </Box>
                  <Box as="td" py="1">
                    {r.trouble ? (
                      <span>✕ {r.trouble}</span>
                    ) : r.like ? (
                      <Flex align="center" gap="2" wrap="wrap">
                        {r.same ? "is there already" : `like ${r.like}`}
                        <Select
                          label={`What to do with row ${r.row}`}
                          value={as[r.row] ?? ""}
                          set={(v) => setAs({ ...as, [r.row]: v })}
                          list={[
                            { id: "", name: "somebody new" },
                            ...(r.like_id ? [{ id: String(r.like_id), name: `is ${r.like}` }] : []),
                            { id: "skip", name: "leave out" },
                          ]}
                        />
                      </Flex>
                    ) : (
                      "✓ new"
                    )}
                  </Box>
                </Box>
              ))}
            </tbody>
          </Table.Root>
          <Flex gap="2" mt="3">
            <Press
              look="main"
              disabled={good.length === 0}
              onClick={() =>
                take.mutate(
                  good.map((r) => incoming(r, as[r.row])),
                  {
                    onSuccess: (t) => {
                      setRows(undefined);
                      setDone(`${t.added} added, ${t.changed} changed.`);
                    },
                  },
                )
              }
            >
              Take in {good.length}
            </Press>
            <Press onClick={() => setRows(undefined)}>Leave it</Press>
          </Flex>
        </Box>
      )}
    </Part>
  );
}
