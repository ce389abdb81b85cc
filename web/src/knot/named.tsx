import { Box, Flex } from "@chakra-ui/react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useCatalogue } from "../api/hooks";
import { Press } from "../ui/button";
import { Drawing, FaultDrawing } from "../ui/drawing";
import { Card } from "../ui/page";
import type { Meeting } from "./traced";

type Tied = Schemas["TradeTied"];

/** What a tracing is, or is nearly, or that it is nothing known here. */
export function Told({ told, turn }: { told: Schemas["Traced"]; turn: (m: Meeting) => void }) {
  const { meetings, left, matches } = told;
  if (meetings.length === 0)
    return <Card fontSize="lg">The line does not cross anything yet: a plain line is no knot.</Card>;
  if (left > 0) {
    return (
      <Card fontSize="lg">
        {left} of {meetings.length} crossings to mark. Touch each: first the strand drawn later comes on top,
        then the other.
      </Card>
    );
  }
  const [best, ...others] = matches;
  if (!best) {
    return (
      <Card kind="warn" p="4">
        <Box className="head" fontSize="2xl" color="flare">
          No knot known here
        </Box>
        <Box mt="1">
          Not one of the knots or faults drawn here, in either hand, nor with one crossing turned over. That
          does not make it unsafe or safe: it means we cannot say. Untie it, and tie one you can name.
        </Box>
      </Card>
    );
  }
  return (
    <>
      {best.changes.length > 0 ? <Nearly best={best} told={told} turn={turn} /> : <Is tied={best} />}
      {others.length > 0 && (
        <Box mt="3">
          <Box color="quiet">{best.changes.length > 0 ? "Or nearly" : "The same form is also"}</Box>
          {others.slice(0, 3).map((o) => (
            <Box key={`${o.knot} ${o.fault} ${o.drawing}`}>
              <Link className="link strong" to={`/knots/${o.knot}`}>
                {o.name}
              </Link>
              {o.changes.length > 0 && `: ${wrongOnes(o)} the other way`}
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}

const wrongOnes = (t: Tied) => (t.changes.length === 1 ? "one crossing" : `${t.changes.length} crossings`);

const how: Record<Tied["by"], string> = {
  diagram: "Crossing by crossing as it is drawn here.",
  slack: "Slack taken out, crossing by crossing as it is drawn here.",
  closures: "Laid otherwise than it is drawn here, but the same by every invariant we compute.",
};

/** It is a knot, or a fault of one. */
function Is({ tied }: { tied: Tied }) {
  const knot = useCatalogue().data?.knots.find((k) => k.id === tied.knot);
  const good = !tied.fault && !tied.exchanged;
  return (
    <Card
      kind={good ? "good" : "warn"}
      p="4"
      data-named={tied.fault ? `${tied.knot} ${tied.fault}` : tied.knot}
    >
      <Box className="head" fontSize="2xl" color={good ? "glass" : "flare"}>
        {good ? "✓" : "✕"} {tied.name}
      </Box>
      {tied.fault && knot && (
        <Box mt="1">
          A fault of the {knot.name.toLowerCase()}: {tied.leads}.
        </Box>
      )}
      {tied.exchanged && (
        <Box mt="1">
          But its standing part and its end have changed places: the load would come on the wrong one.
        </Box>
      )}
      {tied.mirror && (
        <Box mt="1">The mirror image of our drawing: the same form, tied with the other hand.</Box>
      )}
      <Box mt="1" color="quiet">
        {how[tied.by]} Its form is right; how it is set, how long its end is and what it is tied in are yours
        to check.
      </Box>
      <Flex mt="3" gap="3" align="center" wrap="wrap">
        {tied.fault ? (
          <FaultDrawing id={tied.drawing} look="laid" w="190px" h="160px" />
        ) : (
          <Drawing
            id={tied.knot}
            name={tied.name}
            drawn
            w="190px"
            h="160px"
            options={{ left: tied.mirror }}
          />
        )}
        <Press asChild>
          <Link to={`/knots/${tied.knot}`}>See the {knot?.name.toLowerCase()}</Link>
        </Press>
      </Flex>
    </Card>
  );
}

/** Which crossings would make it a knot. */
function Nearly({ best, told, turn }: { best: Tied; told: Schemas["Traced"]; turn: (m: Meeting) => void }) {
  const [only] = best.changes;
  const meeting =
    best.changes.length === 1 &&
    told.meetings.find((m) =>
      [[...m.a, ...m.b].join(), [...m.b, ...m.a].join()].includes(only?.join() ?? ""),
    );
  return (
    <Card kind="warn" p="4" data-named={`nearly ${best.knot}`}>
      <Box className="head" fontSize="2xl" color="flare">
        ✕ Nearly: {best.name.toLowerCase()}
      </Box>
      <Box mt="1">
        It is no knot as it lies. With {wrongOnes(best)} the other way, ringed in the tracing, it is the{" "}
        {best.name.toLowerCase()}
        {best.fault && ", which is a fault"}. Look there: is it tied so, or only traced so?
      </Box>
      {meeting && (
        <Press mt="3" onClick={() => turn(meeting)}>
          Turn that crossing over
        </Press>
      )}
    </Card>
  );
}
