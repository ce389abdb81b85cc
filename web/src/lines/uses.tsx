import { Box, Flex, Grid, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { useAddress } from "../ui/address";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Card, Page, Part, Title } from "../ui/page";
import { Select } from "../ui/pick";
import { Files } from "./files";
import { LinesNav } from "./nav";
import { lq, type Outcome, type UseFilter } from "./queries";
import { UseSheet } from "./use-sheet";
import { day, outcomes } from "./words";

/** What was rigged where and what came of it, narrowed as one likes; what went wrong most. */
export function UsesView() {
  const [params, change] = useAddress();
  const get = (key: string) => params.get(key) ?? "";
  const by: UseFilter = {
    line: get("line") || undefined,
    knot: get("knot") || undefined,
    outcome: (get("how") || undefined) as Outcome | undefined,
    wrong: get("wrong") === "1" || undefined,
    where: get("where") || undefined,
    from: get("from") || undefined,
    to: get("to") || undefined,
  };
  const uses = useQuery(lq.uses(by));
  const sums = useQuery(lq.sums(by)).data;
  const locker = useQuery(lq.locker()).data ?? [];
  const knots = useCatalogue().data?.knots ?? [];
  const [add, setAdd] = useState(false);
  const [gone, setGone] = useState<Schemas["UseRow"]>();
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/uses/{id}", { params: { path: { id } } })),
  );
  const restore = useKept((id: number) =>
    unwrap(api.POST("/api/v1/uses/{id}/restoration", { params: { path: { id } } })),
  );
  const narrowed = Object.values(by).some(Boolean);
  const list = uses.data?.uses ?? [];
  return (
    <Page maxW="1280px">
      <LinesNav />
      <Flex gap="3" align="center" wrap="wrap">
        <Title>Log of use</Title>
        <Box flex="1" />
        <Files kind="use" />
        <Press look="main" onClick={() => setAdd(true)}>
          Log a use
        </Press>
      </Flex>
      <Flex gap="2" wrap="wrap" mt="3" role="search" aria-label="Narrow the log of use">
        <Select
          label="Line"
          first="any line"
          value={get("line")}
          set={(line) => change({ line })}
          list={locker.map((l) => ({ id: l.code ?? "", name: l.name }))}
        />
        <Select
          label="Knot"
          first="any knot"
          value={get("knot")}
          set={(knot) => change({ knot })}
          list={knots}
        />
        <Select
          label="What happened"
          first="whatever happened"
          value={get("wrong") === "1" ? "wrong" : get("how")}
          set={(how) => change(how === "wrong" ? { wrong: "1", how: "" } : { wrong: "", how })}
          list={[{ id: "wrong", name: "what went wrong" }, ...outcomes]}
        />
        <Input
          aria-label="Where"
          placeholder="anywhere"
          w="170px"
          defaultValue={get("where")}
          onBlur={(e) => change({ where: e.target.value.trim() })}
          onKeyDown={(e) => e.key === "Enter" && change({ where: e.currentTarget.value.trim() })}
        />
        <Input
          aria-label="From day"
          type="date"
          w="160px"
          value={get("from")}
          onChange={(e) => change({ from: e.target.value })}
        />
        <Input
          aria-label="To day"
          type="date"
          w="160px"
          value={get("to")}
          onChange={(e) => change({ to: e.target.value })}
        />
        {narrowed && (
          <Press
            look="bare"
            onClick={() => change({ line: "", knot: "", how: "", wrong: "", where: "", from: "", to: "" })}
          >
            All
          </Press>
        )}
      </Flex>
      <Trouble error={uses.error ?? remove.error ?? restore.error} />
      {sums && sums.n > 0 && <Sums sums={sums} />}
      {gone && (
        <Card kind="note" mt="3" role="status">
          Taken back: {gone.says}{" "}
          <Press small onClick={() => restore.mutate(gone.id, { onSuccess: () => setGone(undefined) })}>
            Bring it back
          </Press>
        </Card>
      )}
      {uses.data && list.length === 0 && (
        <Card mt="4">
          {narrowed ? "No use is like that." : "Nothing yet. Log what you rig, and what came of it."}
        </Card>
      )}
      <Part title={list.length > 0 ? "The log" : ""} mt="4">
        <Box role={list.length > 0 ? "list" : undefined} aria-label="The log of use">
          {list.map((e) => (
            <Flex
              key={e.id}
              role="listitem"
              gap="3"
              py="2"
              borderTop="1px solid"
              borderColor="rule"
              align="center"
              wrap="wrap"
              data-use={e.outcome}
            >
              <Box w="104px" color="quiet" fontSize="sm">
                {day(e.at)}
              </Box>
              <Box
                w="130px"
                fontWeight="700"
                color={e.outcome === "held" ? "glass" : e.outcome === "late" ? "amber" : "flare"}
              >
                <span aria-hidden="true">{outcomes.find((o) => o.id === e.outcome)?.sign}</span>{" "}
                {outcomes.find((o) => o.id === e.outcome)?.name}
              </Box>
              <Box flex="1" minW="240px">
                {e.says}
                {e.line && (
                  <Box fontSize="sm" color="quiet">
                    <Link to={`/lines/${e.line}`} className="link">
                      {e.line_name ?? e.line}
                    </Link>
                    {e.other && (
                      <>
                        {" and "}
                        <Link to={`/lines/${e.other}`} className="link">
                          {e.other_name ?? e.other}
                        </Link>
                      </>
                    )}
                  </Box>
                )}
              </Box>
              {e.photo ? (
                <a href={`/api/v1/photos/${e.photo}`}>
                  <img
                    src={`/api/v1/photos/${e.photo}`}
                    alt={`How it looked: ${e.says}`}
                    width="72"
                    style={{ borderRadius: 6 }}
                  />
                </a>
              ) : null}
              <Press
                look="bare"
                small
                aria-label={`Take back: ${e.says}`}
                onClick={() => remove.mutate(e.id, { onSuccess: () => setGone(e) })}
              >
                ✕
              </Press>
            </Flex>
          ))}
        </Box>
        {uses.data?.next && (
          <Box color="quiet" mt="2">
            The last {list.length} are shown: narrow it to see further back.
          </Box>
        )}
      </Part>
      {add && <UseSheet line={by.line} knot={by.knot} close={() => setAdd(false)} />}
    </Page>
  );
}

/** What it comes to: all of it, and the lines and knots with which most went wrong. */
function Sums({ sums }: { sums: Schemas["UseSums"] }) {
  const held = sums.by.held ?? 0;
  const wrong = sums.n - held;
  return (
    <Grid gap="6" mt="4" templateColumns={{ base: "1fr", md: "1fr 1fr 1fr" }} data-sums="">
      <Box>
        <Box className="head" fontSize="3xl" lineHeight="1.1">
          {sums.n} {sums.n === 1 ? "use" : "uses"}
        </Box>
        <Box fontSize="lg">{wrong === 0 ? "All of them held." : `${wrong} went wrong.`}</Box>
        {outcomes.slice(1).map((o) =>
          sums.by[o.id] ? (
            <Flex key={o.id} gap="2" align="center" mt="1">
              <Box w="112px">{o.name}</Box>
              <Box
                h="14px"
                bg={o.id === "late" ? "amber" : "flare"}
                borderRadius="sm"
                style={{ width: `${Math.max(6, (150 * (sums.by[o.id] ?? 0)) / wrong)}px` }}
              />
              <Box fontWeight="700">{sums.by[o.id]}</Box>
            </Flex>
          ) : null,
        )}
      </Box>
      {(["lines", "knots"] as const).map((of) => (
        <Part key={of} title={of === "lines" ? "By line" : "By knot"}>
          {sums[of].slice(0, 5).map((t) => (
            <Box key={t.of} py="1" borderTop="1px solid" borderColor="rule">
              <Link to={of === "lines" ? `/lines/${t.of}` : `/knots/${t.of}`} className="link">
                {t.name}
              </Link>
              <Box fontSize="sm">{t.says}</Box>
            </Box>
          ))}
        </Part>
      ))}
    </Grid>
  );
}
