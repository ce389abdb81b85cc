import { Box, Flex } from "@chakra-ui/react";
import { api, type Schemas, unwrap } from "../api/client";
import { useKept } from "../api/hooks";
import { Press } from "../ui/button";
import { Drawing } from "../ui/drawing";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card } from "../ui/page";

type Left = Schemas["LeaderCard"];
type Book = Schemas["LeaderBook"];

/** A leader in use with what is left of it; one touch for each change. */
export function LeaderCard({ leader: l }: { leader: Left }) {
  const save = useKept((b: Book) =>
    unwrap(
      api.PUT("/api/v1/leaders/{id}", {
        params: { path: { id: b.id }, header: { "If-Match": `"${b.revision}"` } },
        body: b,
      }),
    ),
  );
  const tippet = useKept((id: number) =>
    unwrap(api.POST("/api/v1/leaders/{id}/tippet", { params: { path: { id } } })),
  );
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/leaders/{id}", { params: { path: { id } } })),
  );
  const book = (part: Partial<Book>): Book =>
    ({
      id: l.id,
      revision: l.revision,
      name: l.name,
      length_m: l.length_m,
      shortest_m: l.shortest_m,
      knot: l.knot,
      line: l.line,
      changes: l.changes,
      lost_m: l.lost_m,
      action_m: l.action_m,
      sections: l.sections,
      begun: l.begun,
      own: l.own,
      ...part,
    }) as Book;
  return (
    <Card
      p="4"
      data-leader={l.name}
      borderColor={l.low ? "flare" : "rule"}
      borderWidth={l.low ? "2px" : "1.5px"}
    >
      <Flex gap="3" align="center">
        <Box flex="1" minW="0">
          <Box className="head" fontSize="lg">
            {l.name}
          </Box>
          <Box color="quiet">
            {l.knot_name}, {l.now_m.toFixed(2)} m of {l.length_m} m
            {l.spool_name ? `, from ${l.spool_name}` : ""}
          </Box>
        </Box>
        <Drawing id={l.knot} name={l.knot_name} drawn w="84px" h="56px" aria-hidden />
      </Flex>
      <Taper leader={l} />
      <Flex align="center" gap="4" mt="1">
        <Box className="head" fontSize="52px" lineHeight="1" color={l.low ? "flare" : "ink"} data-left="">
          {l.changes_left}
        </Box>
        <Box flex="1">
          {l.says.map((s) => (
            <Box key={s}>{s}</Box>
          ))}
          <Evidence tag={l.tag} source="what the knot and its trimmed end hold of the line" />
        </Box>
      </Flex>
      <Flex gap="2" mt="3" wrap="wrap">
        <Press
          look="main"
          flex="1"
          whiteSpace="nowrap"
          minW="120px"
          onClick={() => save.mutate(book({ changes: (l.changes ?? 0) + 1 }))}
        >
          Tied again
        </Press>
        <Press
          disabled={!l.changes}
          onClick={() => save.mutate(book({ changes: Math.max(0, (l.changes ?? 0) - 1) }))}
        >
          Take one back
        </Press>
        <Press onClick={() => save.mutate(book({ lost_m: Math.round(100 * ((l.lost_m ?? 0) + 0.1)) / 100 }))}>
          10 cm spoilt
        </Press>
        {l.add_m > 0 && <Press onClick={() => tippet.mutate(l.id)}>New tippet on</Press>}
        <Press look="bare" onClick={() => remove.mutate(l.id)}>
          Done with it
        </Press>
      </Flex>
      <Trouble error={save.error ?? tippet.error ?? remove.error} />
    </Card>
  );
}

/** The leader to scale: its sections from the reel down, what is left of the last, and where it becomes too short. */
function Taper({ leader: l }: { leader: Left }) {
  const above = (l.sections ?? []).map((s) => s.length_m);
  const whole = above.reduce((a, b) => a + b, 0) + l.length_m;
  const x = (m: number) => 8 + (284 * m) / whole;
  const from = whole - l.length_m;
  const colour = l.low ? "var(--flare)" : "var(--glass)";
  let at = 0;
  return (
    <svg viewBox="0 0 300 34" width="100%" aria-hidden="true">
      {above.map((m, i) => {
        const [a, b] = [at, at + m];
        at = b;
        return (
          <path
            key={a}
            d={`M${x(a)} 15H${x(b)}`}
            stroke="var(--rope-1-edge)"
            strokeWidth={10 - (4 * i) / Math.max(1, above.length)}
          />
        );
      })}
      <path d={`M${x(from)} 15H${x(whole)}`} stroke="var(--line)" strokeWidth="3" strokeDasharray="4 5" />
      <path
        d={`M${x(from)} 15H${x(from + Math.max(0, l.now_m))}`}
        stroke={colour}
        strokeWidth="5"
        strokeLinecap="round"
      />
      {above.map((_, i) => {
        const join = above.slice(0, i + 1).reduce((a, b) => a + b, 0);
        return (
          <circle
            key={join}
            cx={x(join)}
            cy="15"
            r="6"
            fill="var(--rope-1)"
            stroke="var(--rope-1-edge)"
            strokeWidth="2"
          />
        );
      })}
      <path
        d={`M${x(from + l.shortest_m)} 5V25`}
        stroke="var(--flare)"
        strokeWidth="2.4"
        strokeLinecap="round"
      />
      {l.action_m ? (
        <path
          d={`M${x(from + l.action_m)} 7V23`}
          stroke="var(--amber)"
          strokeWidth="2.4"
          strokeDasharray="3 2"
        />
      ) : null}
      <circle
        cx={x(from + Math.max(0, l.now_m))}
        cy="15"
        r="7"
        fill="var(--rope-1)"
        stroke="var(--rope-1-edge)"
        strokeWidth="2"
      />
    </svg>
  );
}
