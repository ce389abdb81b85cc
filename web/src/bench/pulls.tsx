import { Box, Flex, Table } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Part } from "../ui/page";
import { Sheet } from "../ui/sheet";
import { type Mark, Plot } from "./plot";
import { savePNG } from "./save";

type Page = Schemas["SeriesPage"];
type Row = Schemas["PullRow"];

/** The pulls one by one; one with a trace opens it. */
export function Pulls({ page }: { page: Page }) {
  const [open, setOpen] = useState<number>();
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/pulls/{id}", { params: { path: { id } } })),
  );
  if (page.pulls.length === 0) return null;
  const shown = page.pulls.find((p) => p.id === open);
  return (
    <Part title="The pulls" mt="6">
      <Box overflowX="auto">
        <Table.Root>
          <Table.Body>
            {page.pulls.map((p, i) => (
              <Table.Row key={p.id} data-pull={p.id}>
                <Table.Cell>{i + 1}</Table.Cell>
                <Table.Cell>
                  A {p.a_name.toLowerCase()}, B {p.b_name.toLowerCase()}
                </Table.Cell>
                <Table.Cell>{p.says}</Table.Cell>
                <Table.Cell>
                  {p.creep_a_mm != null && `crept ${p.creep_a_mm} mm at A `}
                  {p.creep_b_mm != null && `crept ${p.creep_b_mm} mm at B `}
                  {p.corrected && "marks corrected "}
                  {p.note}
                </Table.Cell>
                <Table.Cell textAlign="right" whiteSpace="nowrap">
                  {p.found && (
                    <Press small onClick={() => setOpen(p.id)}>
                      Trace
                    </Press>
                  )}{" "}
                  <Press small look="bare" onClick={() => remove.mutate(p.id)}>
                    Remove
                  </Press>
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      </Box>
      <Trouble error={remove.error} />
      {shown && <Trace pull={shown} close={() => setOpen(undefined)} />}
    </Part>
  );
}

const kN = (v: number) => `${v.toPrecision(3)} kN`;

/** One trace with its marks. Touching the trace adds a slip there, touching a slip takes it away. */
function Trace({ pull, close }: { pull: Row; close: () => void }) {
  const { data } = useQuery(q.trace(pull.id));
  const save = useKept((body: Schemas["BenchPull"]) =>
    unwrap(
      api.PUT("/api/v1/pulls/{id}", {
        params: { path: { id: pull.id }, header: { "If-Match": `"${pull.revision}"` } },
        body,
      }),
    ),
  );
  const slips = pull.corrected?.slips ?? pull.found?.slips ?? [];
  const peak = pull.corrected?.peak ?? pull.found?.peak;
  const broke = pull.corrected?.break ?? pull.found?.break;
  const zero = data?.t_s[0] ?? 0;
  const marks: Mark[] = [
    ...slips.map((m) => ({ ...m, t_s: m.t_s - zero, name: `slip, ${kN(m.load_kn)}` })),
    ...(peak && !broke ? [{ ...peak, t_s: peak.t_s - zero, name: `peak, ${kN(peak.load_kn)}` }] : []),
    ...(broke ? [{ ...broke, t_s: broke.t_s - zero, name: `break, ${kN(broke.load_kn)}` }] : []),
  ];
  const plateau = pull.corrected?.slips ? undefined : pull.found?.plateau;
  if (plateau?.[0] && plateau[1]) {
    const load_kn = (plateau[0].load_kn + plateau[1].load_kn) / 2;
    marks.push({
      t_s: (plateau[0].t_s + plateau[1].t_s) / 2 - zero,
      load_kn,
      name: `slips on at ${kN(load_kn)}`,
    });
    marks.sort((a, b) => a.t_s - b.t_s);
  }
  const put = (corrected: Schemas["BenchCorrected"] | undefined) => {
    const { a_name: _, b_name: __, says: ___, ...body } = pull;
    save.mutate({ ...body, corrected } as Schemas["BenchPull"]);
  };
  const [sets, setSets] = useState<"slip" | "peak" | "break">("slip");
  const touch = (s: number) => {
    if (!data) return;
    const at = s + zero;
    if (sets !== "slip") {
      const i = Math.max(
        0,
        data.t_s.findIndex((t) => t >= at),
      );
      put({ ...pull.corrected, [sets]: { t_s: data.t_s[i], load_kn: data.load_kn[i] } });
      return;
    }
    const near = slips.find((m) => Math.abs(m.t_s - at) < 0.02 * ((data.t_s.at(-1) ?? 0) - zero));
    let i = data.t_s.findIndex((t) => t >= at);
    if (i < 0) i = data.t_s.length - 1;
    const next = near
      ? slips.filter((m) => m !== near)
      : [...slips, { t_s: data.t_s[i] as number, load_kn: data.load_kn[i] as number }].sort(
          (a, b) => a.t_s - b.t_s,
        );
    put({ ...pull.corrected, slips: next });
  };
  return (
    <Sheet
      open
      wide
      close={close}
      title={`Pull of ${pull.a_name.toLowerCase()} against ${pull.b_name.toLowerCase()}`}
      foot={
        <>
          {pull.corrected && (
            <Press look="bare" onClick={() => put(undefined)}>
              Back to what was found
            </Press>
          )}
          <Press
            onClick={() => {
              const canvas = document.querySelector<HTMLCanvasElement>("[role=dialog] canvas");
              if (canvas) savePNG(canvas, `pull-${pull.id}`);
            }}
          >
            Picture
          </Press>
          <Press asChild>
            <a href={`/api/v1/pulls/${pull.id}/trace.csv`} download={`pull-${pull.id}.csv`}>
              Save as CSV
            </a>
          </Press>
          <Press look="main" onClick={close}>
            Close
          </Press>
        </>
      }
    >
      {data && (
        <Plot
          main={{ s: data.t_s.map((t) => t - zero), kN: data.load_kn }}
          marks={marks}
          touch={touch}
          h="360px"
          label={`The trace: ${pull.says}`}
        />
      )}
      <Flex mt="2" gap="2" wrap="wrap" align="center" role="group" aria-label="A touch on the trace sets">
        <Box>A touch on the trace sets:</Box>
        {(["slip", "peak", "break"] as const).map((m) => (
          <Press key={m} small aria-pressed={m === sets} onClick={() => setSets(m)}>
            {m === "slip" ? "a slip" : `the ${m}`}
          </Press>
        ))}
        <Box color="quiet">
          {sets === "slip" && "Touch a slip to take it away. "}What was found is kept beside it.
        </Box>
      </Flex>
      <Trouble error={save.error} />
    </Sheet>
  );
}
