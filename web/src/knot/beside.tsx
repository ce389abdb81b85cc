import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { KnotPage } from "../api/client";
import { type DrawingOptions, q } from "../api/queries";
import { conditionWords } from "../log/attempt";
import { Drawing, FaultDrawing, type Look } from "../ui/drawing";
import { capital, seconds } from "../ui/format";
import { Cautions } from "../ui/notes";
import { Part } from "../ui/page";
import { DrawnUp } from "./drawnup";
import { Numbers } from "./numbers";
import { Slips, Ways, Why } from "./told";
import { Worded } from "./words";

/** How the pictures are seen, and by which hand. */
type Seen = { look: Look; view: DrawingOptions["view"]; left: boolean };

/** What stands beside the drawing: what to check, what goes wrong, the figures, the kin. */
export function Beside({ knot, ...seen }: { knot: KnotPage } & Seen) {
  const { left } = seen;
  const told = left ? knot.left : knot;
  return (
    <>
      <Why knot={knot} />
      <Part title="Right when">
        {told.checks.map((c, i) => (
          <Flex key={c} gap="2" py="0.5">
            <Box color="glass" fontWeight="700" aria-hidden>
              {knot.snug ? i + 1 : "✓"}
            </Box>
            <Box>
              <Worded text={c} />
            </Box>
          </Flex>
        ))}
      </Part>
      <DrawnUp knot={knot} left={left} look={seen.look} />
      <Ways knot={knot} {...seen} />
      <Slips knot={knot} left={left} />
      <Part title="What goes wrong, and how to put it right">
        {told.faults.map((f) => (
          <Fault key={f.code} knot={knot} fault={f} {...seen} />
        ))}
      </Part>
      <Part title="Numbers">
        <Numbers knot={knot} />
      </Part>
      <Part title="For and against">
        {Object.values(knot.tasks)
          .sort((a, b) => b.fit - a.fit)
          .map((t) => (
            <Box key={t.why} py="0.5">
              {t.fit >= 0.7 ? "● " : t.fit >= 0.4 ? "◐ " : "○ "}
              {capital(t.why)}.
            </Box>
          ))}
        {knot.ratio && (
          <Box py="0.5">
            Lines from {knot.ratio.min} to {knot.ratio.max} to 1: {knot.ratio.why}.
          </Box>
        )}
        <Box py="0.5">Shaken: {knot.shake.why}.</Box>
      </Part>
      <Shared knot={knot} />
      <Box mt="4">
        <Cautions list={knot.caution_texts} />
      </Box>
    </>
  );
}

function Fault({ knot, fault: f, ...seen }: { knot: KnotPage; fault: KnotPage["faults"][number] } & Seen) {
  return (
    <Flex py="1.5" gap="3" borderTop="1px solid" borderColor="rule">
      <Box flex="1">
        <Box fontWeight="700">
          <Box as="span" color="flare" aria-hidden>
            ✕{" "}
          </Box>
          {f.name}
        </Box>
        <Box fontSize="md">
          {capital(f.looks)}; {f.leads}. <strong>Put right:</strong> {f.mend}
        </Box>
      </Box>
      {f.drawing && <LookAlike knot={knot} fault={f} {...seen} />}
    </Flex>
  );
}

function Shared({ knot }: { knot: KnotPage }) {
  const leads = knot.leads_to.filter((r) => !knot.grows_from.some((g) => g.knot === r.knot));
  if (knot.grows_from.length + leads.length === 0) return null;
  return (
    <Part title="Learn with it">
      {knot.grows_from.map((r) => (
        <Box key={r.knot} py="0.5">
          Comes from the <Kin {...r} />
        </Box>
      ))}
      {leads.map((r) => (
        <Box key={r.knot} py="0.5">
          Leads to the <Kin {...r} />
        </Box>
      ))}
    </Part>
  );
}

function Kin(r: KnotPage["grows_from"][number]) {
  return (
    <>
      <Link to={`/knots/${r.knot}`} className="link">
        {r.name.toLowerCase()}
      </Link>
      : {r.why}.
    </>
  );
}

/** The knot and its faulty look-alike side by side; the difference is ringed. */
function LookAlike({ knot, fault, ...seen }: { knot: KnotPage; fault: KnotPage["faults"][number] } & Seen) {
  const frame = {
    w: "104px",
    h: "104px",
    bg: "sheet",
    borderRadius: "sm",
    p: "1",
    border: "1.5px solid",
  } as const;
  return (
    <Flex gap="1" flex="none" data-lookalike={fault.code}>
      <Box
        textAlign="center"
        fontSize="xs"
        color="glass"
        fontWeight="700"
        display={{ base: "none", xl: "block" }}
      >
        {fault.right ? (
          <FaultDrawing id={fault.right} {...seen} {...frame} borderColor="glass" />
        ) : (
          <Drawing id={knot.id} name={knot.name} drawn options={seen} {...frame} borderColor="glass" />
        )}
        ✓ right
      </Box>
      <Box textAlign="center" fontSize="xs" color="flare" fontWeight="700">
        <FaultDrawing id={fault.drawing ?? ""} {...seen} {...frame} borderColor="flare" />✕ wrong
      </Box>
    </Flex>
  );
}

/** The last attempts at this knot. */
export function Recent({ knot }: { knot: string }) {
  const list = useQuery(q.attempts(knot)).data?.attempts;
  if (!list?.length) return null;
  return (
    <Part title="Last attempts" mt="4" data-testid="recent">
      {list.slice(0, 4).map((a) => (
        <Box key={a.id} fontSize="md">
          {a.learner}: {a.outcome}
          {a.seconds ? `, ${seconds(a.seconds)}` : ""}
          {a.conditions !== "dry" ? `, ${conditionWords(a.conditions)}` : ""}
        </Box>
      ))}
    </Part>
  );
}
