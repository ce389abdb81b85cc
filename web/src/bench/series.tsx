import { Box, Flex, Grid } from "@chakra-ui/react";
import { useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { newKey } from "../ui/key";
import { useKey } from "../ui/keys";
import { Trouble } from "../ui/notes";
import { Before, useReady } from "./before";
import { TraceFile } from "./file";
import { type Readings, useLive } from "./live";
import { type Curve, type Mark, Plot } from "./plot";
import { type Draft, Record } from "./record";
import { Results } from "./results";
import { Stage } from "./stage";

type Page = Schemas["SeriesPage"];

/** A series on the bench: the specimen, the pull, and what all pulls say. */
export function SeriesView() {
  const { id = "" } = useParams();
  const { data, error } = useQuery(q.seriesPage(Number(id)));
  useEffect(() => {
    if (data) document.title = `${data.series.name} · Oarweed`;
  }, [data]);
  if (error) return <Trouble error={error} />;
  if (!data) return <Box p="6">Loading…</Box>;
  return <Series page={data} />;
}

const named = (p: Page, t: Schemas["BenchTied"]) => p.ends.find((e) => e.knot === t.knot)?.name ?? t.knot;

function Series({ page }: { page: Page }) {
  const client = useQueryClient();
  const { state, readings } = useLive();
  const [draft, setDraft] = useState<Draft>();
  const [file, setFile] = useState(false);
  const [ready, setReady] = useReady();
  const [asks, setAsks] = useState(false);
  // The code on a label opens the specimen that it is stuck to.
  const [params] = useSearchParams();
  const labelled = Number(params.get("specimen")) - 1;
  const at = page.series.specimens[labelled] ? labelled : page.next;
  const specimen = page.series.specimens[at] ?? page.series.specimens.at(-1);
  const last = page.pulls.slice(-8);
  // Earlier pulls lie faint behind; combine keeps the same curves while nothing new came.
  const others = useQueries({
    queries: last.filter((p) => p.source !== "dial").map((p) => q.trace(p.id)),
    combine: curves,
  });
  const start = useMutation({
    mutationFn: () => unwrap(api.POST("/api/v1/bench/pulls/{key}", { params: { path: { key: newKey() } } })),
  });
  const stop = useMutation({
    mutationFn: () => unwrap(api.POST("/api/v1/bench/stop", {})),
    onSuccess: (x) => {
      open("cell", x.key, x.marks, noted);
      setNoted([]);
    },
  });
  const zero = useMutation({ mutationFn: () => unwrap(api.POST("/api/v1/bench/zero", {})) });
  const pulling = Boolean(state?.pull);
  const [noted, setNoted] = useState<Mark[]>([]);
  const note = () => {
    const [t_s, load_kn] = [readings.s.at(-1) ?? 0, readings.kN.at(-1) ?? 0];
    if (pulling) setNoted((now) => [...now, { t_s, load_kn, name: `slip, ${load_kn.toPrecision(2)} kN` }]);
  };
  useKey("slip", note);
  useKey("zero", () => state?.connected && !pulling && zero.mutate());
  const go = () => (pulling ? stop.mutate() : ready ? start.mutate() : setAsks(true));
  useKey("pull", () => state?.connected && go());
  if (!specimen) return null;
  const names: [string, string] = [named(page, specimen.a), named(page, specimen.b)];

  function open(source: Draft["source"], key: string, marks?: Schemas["BenchMarks"], slips: Mark[] = []) {
    if (!specimen) return;
    setDraft({
      key,
      series: page.series.key ?? "",
      a: specimen.a,
      b: specimen.b,
      source,
      outcome: marks?.outcome ?? "broke",
      peak: marks?.peak ? marks.peak.load_kn.toFixed(2) : "",
      gap: state?.gap,
      noted: slips.map(({ t_s, load_kn }) => ({ t_s, load_kn })),
    });
  }
  const closed = () => {
    setDraft(undefined);
    void client.invalidateQueries({ queryKey: q.kept() });
  };
  const discard = async () => {
    if (draft) await api.DELETE("/api/v1/bench/pulls/{key}", { params: { path: { key: draft.key } } });
    closed();
  };
  return (
    <Box as="main">
      <Stage of={specimen} names={names} />
      <Flex
        px={{ base: 3, md: 6 }}
        py="3"
        bg="sheet"
        borderBottom="1px solid"
        borderColor="rule"
        fontSize={{ base: "md", md: "lg" }}
        gap="3"
        wrap="wrap"
        align="center"
      >
        <Box>
          {at >= 0 ? (
            <>
              Pull{" "}
              <b>
                {at + 1} of {page.series.specimens.length}
              </b>
              :{" "}
            </>
          ) : (
            "All are pulled. Once more: "
          )}
          <b>{names[0].toLowerCase()}</b> against <b>{names[1].toLowerCase()}</b> in{" "}
          <b>{page.line_name || "the line"}</b>, <b>{page.series.wet ? "wet" : "dry"}</b>
          {page.series.speed_mm_s ? `, drawn out at ${page.series.speed_mm_s} mm a second` : ""}.
        </Box>
        <Box flex="1" />
        <Press look="bare" asChild>
          <Link to="/bench">All series</Link>
        </Press>
      </Flex>
      <Grid
        px={{ base: 3, md: 6 }}
        py="4"
        gap="6"
        templateColumns={{ base: "1fr", lg: "minmax(0, 1fr) 400px" }}
        alignItems="start"
      >
        <Plot
          main={readings}
          live
          others={others}
          marks={noted}
          yardstick={page.series.yardstick_kn}
          h={{ base: "260px", md: "330px" }}
          label="Load over time"
        />
        <Now
          state={state}
          readings={readings}
          pulling={pulling}
          go={go}
          zero={() => zero.mutate()}
          note={note}
          dial={() => (ready ? open("dial", newKey()) : setAsks(true))}
          file={() => setFile(true)}
          error={start.error ?? stop.error ?? zero.error}
        />
      </Grid>
      <Unrecorded open={(x) => open("cell", x.key, x.marks)} now={draft?.key} />
      <Results page={page} />
      {asks && (
        <Before
          close={() => setAsks(false)}
          done={() => {
            setReady();
            setAsks(false);
          }}
        />
      )}
      {draft && (
        <Record
          draft={draft}
          names={names}
          close={closed}
          discard={draft.source === "dial" ? undefined : () => void discard()}
        />
      )}
      {file && (
        <TraceFile
          close={() => setFile(false)}
          taken={(key, read) => {
            setFile(false);
            open("file", key, read.marks);
          }}
        />
      )}
    </Box>
  );
}

const curves = (results: { data?: Schemas["Drawn"] }[]): Curve[] =>
  results.flatMap(({ data }) =>
    data && data.t_s.length > 0 ? [{ s: data.t_s.map((t) => t - (data.t_s[0] ?? 0)), kN: data.load_kn }] : [],
  );

const lost = {
  unreachable: "nobody answers at the cell's address",
  broken: "the cell's connection was lost",
  silent: "the cell says nothing that can be read",
  dialled: "the cell is dialled",
};

/** Pulls whose readings are kept and that were never recorded: the page or the server was closed. */
function Unrecorded(props: { open: (x: Schemas["Stopped"]) => void; now?: string }) {
  const data = useQuery(q.unrecorded()).data ?? [];
  const left = data.filter((x) => x.key !== props.now && x.readings > 2);
  if (left.length === 0) return null;
  return (
    <Flex px={{ base: 3, md: 6 }} pb="3" gap="2" wrap="wrap" align="center" data-unrecorded="">
      <Box>
        {left.length === 1 ? "A pull was read and not recorded:" : "Pulls were read and not recorded:"}
      </Box>
      {left.map((x) => (
        <Press key={x.key} small onClick={() => props.open(x)}>
          {x.marks?.peak ? `${x.marks.peak.load_kn.toPrecision(3)} kN` : `${x.readings} readings`}
        </Press>
      ))}
    </Flex>
  );
}

/** The load now, in figures that are read across a yard, and what can be done. */
function Now(props: {
  state: ReturnType<typeof useLive>["state"];
  readings: Readings;
  pulling: boolean;
  go: () => void;
  zero: () => void;
  note: () => void;
  dial: () => void;
  file: () => void;
  error: Error | null;
}) {
  const { state, pulling } = props;
  const [kN, setKN] = useState(0);
  const { readings } = props;
  useEffect(() => {
    const t = setInterval(() => setKN(readings.kN.at(-1) ?? 0), 100);
    return () => clearInterval(t);
  }, [readings]);
  return (
    <Box border="2px solid" borderColor="ink" borderRadius="md" bg="sheet" p="4">
      {state?.cell ? (
        <Flex align="baseline" gap="3">
          <Box className="head" fontSize="72px" lineHeight="1" data-load="" aria-live="off">
            {state.connected ? Math.abs(kN).toFixed(1) : "–"}
          </Box>
          <Box fontSize="2xl">kN</Box>
          <Box flex="1" />
          <Box color={state.connected ? "quiet" : "flare"} textAlign="right" role="status">
            {state.connected ? (pulling ? "pulling" : "cell is ready") : lost[state.lost ?? "dialled"]}
            {state.gap && <Box color="flare">readings are missing</Box>}
          </Box>
        </Flex>
      ) : (
        <Box>
          No load cell is connected. Read the highest load off a dial or a spring scale, or take a trace from
          a file.
        </Box>
      )}
      <Grid mt="4" gap="2" templateColumns="1fr 1fr">
        {state?.cell && (
          <>
            <Press
              gridColumn="1 / -1"
              minH="60px"
              fontSize="xl"
              look={pulling ? undefined : "main"}
              {...(pulling ? { bg: "flare", color: "sheet", borderColor: "flare" } : {})}
              disabled={!state.connected && !pulling}
              onClick={props.go}
            >
              {pulling ? "Stop" : "Start the pull"}
            </Press>
            {pulling && (
              <Press gridColumn="1 / -1" onClick={props.note}>
                Slip now
              </Press>
            )}
            <Press onClick={props.zero} disabled={!state.connected || pulling}>
              Set to zero
            </Press>
          </>
        )}
        <Press look={state?.cell ? undefined : "main"} onClick={props.dial} disabled={pulling}>
          Read off a dial
        </Press>
        <Press onClick={props.file} disabled={pulling}>
          From a file
        </Press>
      </Grid>
      <Trouble error={props.error} />
    </Box>
  );
}
