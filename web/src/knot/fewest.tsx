import { Box, Flex, Grid } from "@chakra-ui/react";
import { useEffect } from "react";
import { Link } from "react-router";
import { useCatalogue, useLasting } from "../api/hooks";
import { q } from "../api/queries";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { capital } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Pick } from "../ui/pick";

/** Tick what has to be done: the fewest knots that do it. */
export function FewestView() {
  const c = useCatalogue().data;
  const [params, change] = useAddress();
  const chosen = (params.get("jobs") ?? "").split(",").filter(Boolean);
  const rope = params.get("rope") ?? "";
  const line = params.get("line") ?? "";
  useEffect(() => {
    document.title = "The fewest knots · Oarweed";
  }, []);
  const fishing = (task: string) => (c?.tasks.find((t) => t.id === task)?.start.label_kn ?? 0) > 0;
  const jobs = chosen.map((task) => ({ task, material: (fishing(task) ? line : rope) || undefined }));
  const answer = useLasting({ ...q.fewest(jobs), enabled: jobs.length > 0 });
  const toggle = (id: string) =>
    change({ jobs: (chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id]).join(",") });
  const taskName = (id: string) => c?.tasks.find((t) => t.id === id)?.name ?? id;
  const told = jobs.length > 0 ? answer.data : undefined;
  const materials = c?.materials ?? [];
  return (
    <Page maxW="1240px" py="4">
      <Title>The fewest knots for your jobs</Title>
      <Flex gap="6" mt="3" direction={{ base: "column", lg: "row" }} align="flex-start">
        <Box flex="1.2" w="100%">
          <Grid templateColumns="1fr 1fr" gap="3" maxW="560px" mb="3">
            <Pick
              label="Your rope"
              value={rope}
              set={(v) => change({ rope: v })}
              any="what is usual"
              list={materials.filter((m) => !m.fishing)}
            />
            <Pick
              label="Your fishing line"
              value={line}
              set={(v) => change({ line: v })}
              any="what is usual"
              list={materials.filter((m) => m.fishing)}
            />
          </Grid>
          {c?.task_groups.map((g) => (
            <Part key={g} title={capital(g)} mb="3">
              <Flex gap="2" wrap="wrap">
                {c.tasks
                  .filter((t) => t.group === g)
                  .map((t) => (
                    <Press
                      key={t.id}
                      small
                      aria-pressed={chosen.includes(t.id)}
                      data-job={t.id}
                      onClick={() => toggle(t.id)}
                    >
                      {capital(t.name)}
                    </Press>
                  ))}
              </Flex>
            </Part>
          ))}
        </Box>
        <Box
          flex="1"
          w="100%"
          aria-live="polite"
          data-testid="fewest"
          order={{ base: -1, lg: 1 }}
          position={{ lg: "sticky" }}
          top="4"
        >
          <Trouble error={answer.error ?? undefined} />
          {!told && !answer.error && <Card fontSize="lg">Tick what has to be done.</Card>}
          {told && (
            <>
              <Flex align="center" gap="2" wrap="wrap">
                <Box className="head" fontSize="2xl">
                  {told.knots.length === 1 ? "One knot" : `${told.knots.length} knots`} for {jobs.length}{" "}
                  {jobs.length === 1 ? "job" : "jobs"}
                </Box>
                <Evidence
                  tag="computed"
                  source="every smaller set was ruled out; each job at its usual size and load, wet"
                />
                {chosen.length > 0 && (
                  <Press small look="bare" onClick={() => change({ jobs: "" })}>
                    Untick all
                  </Press>
                )}
              </Flex>
              {told.knots.map((k) => {
                const name = c?.knots.find((x) => x.id === k.knot)?.name ?? k.knot;
                return (
                  <Card key={k.knot} mt="2" display="flex" gap="3" alignItems="center" data-knot-for={k.knot}>
                    <Drawing id={k.knot} name={name} drawn w="84px" h="76px" flex="none" />
                    <Box>
                      <Link to={`/knots/${k.knot}`} className="link strong">
                        {name}
                      </Link>
                      <Box>{k.covers.map((j) => taskName(j.task)).join("; ")}</Box>
                    </Box>
                  </Card>
                );
              })}
              {told.uncovered.length > 0 && (
                <Card kind="warn" mt="2">
                  No knot here does this in that line:{" "}
                  {told.uncovered.map((j) => taskName(j.task)).join("; ")}.
                </Card>
              )}
              <Flex gap="2" mt="3" wrap="wrap">
                <Press asChild small>
                  <a
                    href={`/api/v1/knots/sheet.pdf?knots=${told.knots.map((k) => k.knot).join(",")}`}
                    target="_blank"
                    rel="noreferrer"
                  >
                    All on one sheet
                  </a>
                </Press>
              </Flex>
            </>
          )}
        </Box>
      </Flex>
    </Page>
  );
}
