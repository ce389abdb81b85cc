import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { force, typedNumber as number, reach } from "../ui/format";
import { Card } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { lq, type Plan } from "./queries";
import { byLabel } from "./words";

type Line = Schemas["MooringLine"];
type Answer = Schemas["MooringAnswer"];

const posts = ["cleat", "bollard", "ring", "post"].map((id) => ({ id, name: id }));

/** One line of a berth: what it bears, how long it is cut, the hitch at each end, where it rubs. */
export function MooredLine(p: {
  plan: Plan;
  answer: Answer;
  at: number;
  choose: (i: number) => void;
  change: (part: Partial<Line>) => void;
  add: () => void;
  remove: () => void;
}) {
  const { plan, answer, at, change } = p;
  const locker = (useQuery(lq.locker()).data ?? []).filter((l) => !l.retired && !byLabel(l));
  const line = plan.lines[at];
  const detail = answer.details[at];
  const share = answer.lines[at];
  return (
    <Box mt="4">
      <Flex gap="2" wrap="wrap" role="group" aria-label="Lines">
        {plan.lines.map((l, i) => {
          const s = answer.lines[i];
          const weak = s && s.margin > 0 && s.margin < 1;
          return (
            <Press
              key={l.name ?? i}
              small
              aria-pressed={i === at}
              color={weak && i !== at ? "flare" : undefined}
              onClick={() => p.choose(i)}
            >
              {l.name}
            </Press>
          );
        })}
      </Flex>
      {line && detail && share && (
        <Card mt="2" data-moored-line={line.name}>
          <Flex gap="3" align="baseline" wrap="wrap">
            <Box
              className="head"
              fontSize="2xl"
              color={share.margin > 0 && share.margin < 1 ? "flare" : undefined}
            >
              {force(share.load_kn, false)}
            </Box>
            <Box>
              {share.margin > 0
                ? `${share.margin.toFixed(1)} times within half of what it has`
                : "slack in this wind"}
              <Evidence tag="computed" source="low end of the line, wet and worn, over twice its load" bare />
            </Box>
          </Flex>
          <Box>
            Leads {reach(detail.run_m)}; cut {reach(detail.cut_m)}
            {detail.line_name ? ` of ${detail.line_name}` : ""}.
            <Evidence
              tag="computed"
              source="its run, a quarter more for tide and easing (our own share), and what both knots take to tie"
              bare
            />
          </Box>
          {detail.says.map((s, i) => (
            <Box key={s} color={detail.short && i === 0 ? "flare" : undefined}>
              {s}
              {i === detail.says.length - 1 && detail.snatch_kn.likely > 0 && (
                <Evidence tag={detail.snatch_kn.tag} source={detail.snatch_kn.source} bare />
              )}
            </Box>
          ))}
          <Grid gap="3" mt="3" templateColumns="1fr 1fr">
            {(["boat", "shore"] as const).map((end) => {
              const h = end === "boat" ? detail.at_boat : detail.at_shore;
              return (
                <Box key={end}>
                  <Pick
                    label={end === "boat" ? "Aboard, on a" : "Ashore, on a"}
                    value={h.post}
                    set={(post) => change({ [end]: post })}
                    list={posts}
                  />
                  {h.knot ? (
                    <Link to={`/knots/${h.knot}`}>
                      <Drawing id={h.knot} name={h.name} drawn w="100%" h="84px" aria-hidden />
                      <Box textAlign="center">{h.name}</Box>
                    </Link>
                  ) : (
                    <Box mt="2">No knot here does it: use a shackle or a splice.</Box>
                  )}
                </Box>
              );
            })}
            <Pick
              label="This line is"
              any="none of the locker"
              value={line.own ?? ""}
              set={(own) => {
                const l = locker.find((x) => x.code === own);
                change({
                  own: own || undefined,
                  ...(l
                    ? {
                        line: {
                          material: l.material,
                          construction: l.construction,
                          diameter_mm: l.diameter_mm,
                          label_kn: l.label_kn,
                          wear: l.wear,
                        } as Line["line"],
                      }
                    : {}),
                });
              }}
              list={locker.map((l) => ({ id: l.code ?? "", name: l.name }))}
            />
            <Typed
              key={`n${at}`}
              label="Name of the line"
              value={line.name ?? ""}
              set={(name) => change({ name })}
            />
            <Grid gap="2" templateColumns="1fr 1fr">
              <Metres
                key={`bx${at}`}
                label="Aboard, ahead, m"
                value={line.from[0] ?? 0}
                set={(v) => change({ from: [v, line.from[1] ?? 0] })}
              />
              <Metres
                key={`by${at}`}
                label="starboard, m"
                value={line.from[1] ?? 0}
                set={(v) => change({ from: [line.from[0] ?? 0, v] })}
              />
            </Grid>
            <Grid gap="2" templateColumns="1fr 1fr">
              <Metres
                key={`x${at}`}
                label="Ashore, ahead, m"
                value={line.to[0] ?? 0}
                set={(v) => change({ to: [v, line.to[1] ?? 0] })}
              />
              <Metres
                key={`y${at}`}
                label="starboard, m"
                value={line.to[1] ?? 0}
                set={(v) => change({ to: [line.to[0] ?? 0, v] })}
              />
            </Grid>
          </Grid>
          <Flex gap="2" mt="3" wrap="wrap">
            <Press small onClick={p.add}>
              Another like it
            </Press>
            {plan.lines.length > 1 && (
              <Press small look="bare" onClick={p.remove}>
                Take it away
              </Press>
            )}
          </Flex>
        </Card>
      )}
    </Box>
  );
}

/** A number as it is typed, handed on once it is one; changed from outside it follows. */
function Metres(p: { label: string; value: number; set: (v: number) => void }) {
  const [text, setText] = useState(String(p.value));
  if (/\d/.test(text) && number(text) !== p.value) setText(String(p.value));
  return (
    <Typed
      label={p.label}
      value={text}
      set={(v) => {
        setText(v);
        if (/\d$/.test(v)) p.set(number(v));
      }}
    />
  );
}
