import { Box, Grid } from "@chakra-ui/react";
import { queryOptions } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, unwrap } from "../api/client";
import { useLasting } from "../api/hooks";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Page, Title } from "../ui/page";
import { Typed } from "../ui/pick";
import { LinesNav } from "./nav";
import { Cord } from "./tow-scale";

/** Sums of the quay: a line that slips, a line that is thrown, a fender that follows the tide. */
export function QuaysideView() {
  return (
    <Page maxW="1180px">
      <LinesNav />
      <Title>Slip lines, heaving lines, fenders</Title>
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr 1fr" }} gap="5" mt="3">
        <Slip />
        <Heave />
        <Tide />
      </Grid>
      <Press asChild mt="5">
        <Link to="/jobs/measures">A fender at a pontoon, and coils</Link>
      </Press>
    </Page>
  );
}

type Fields = Record<string, string>;

/** Things typed, worked out as they are typed. */
function Sum<T extends Fields>(p: {
  title: string;
  picture: React.ReactNode;
  typed: T;
  set: (t: T) => void;
  labels: Record<keyof T & string, string>;
  error: unknown;
  children: React.ReactNode;
}) {
  return (
    <Card p="4">
      <Box className="head" fontSize="lg">
        {p.title}
      </Box>
      {p.picture}
      {Object.entries(p.labels).map(([key, label]) => (
        <Box key={key} mt="2">
          <Typed label={label} value={p.typed[key] ?? ""} set={(v) => p.set({ ...p.typed, [key]: v })} />
        </Box>
      ))}
      <Box mt="2">
        <Trouble error={p.error} />
      </Box>
      <Box mt="3" fontSize="lg" role="status">
        {p.children}
      </Box>
    </Card>
  );
}

/** A boat at a wall, seen from the side. */
const Harbour = ({ boat, wall, children }: { boat: string; wall: string; children: React.ReactNode }) => (
  <svg viewBox="0 0 300 110" width="100%" aria-hidden="true">
    <path d="M0 84q12 -7 24 0t24 0t24 0t24 0t24 0t24 0t24 0t24 0t24 0" fill="none" stroke="var(--glass)" />
    <path d={boat} fill="var(--glass-wash)" stroke="var(--object-edge)" strokeWidth="2" />
    <path d={wall} fill="var(--object)" stroke="var(--object-edge)" strokeWidth="2" />
    {children}
  </svg>
);

const ask = <T,>(name: string, typed: Fields, call: () => Promise<T>) =>
  queryOptions({ queryKey: ["quayside", name, typed], queryFn: call, retry: false });

function Slip() {
  const [typed, set] = useState({ distance: "4 m", height: "1 m", line: "12 mm" });
  const { data, error } = useLasting(
    ask("slip", typed, () => unwrap(api.GET("/api/v1/slip-line", { params: { query: typed } }))),
  );
  return (
    <Sum
      title="A line that slips"
      picture={
        <Harbour boat="M10 66H150L138 100H24Z" wall="M232 34H300V110H232Z">
          <circle cx="238" cy="30" r="9" fill="none" stroke="var(--object-edge)" strokeWidth="4" />
          <Cord d="M120 60L232 22M126 64L236 39M232 22q12 0 4 17" />
          <path d="M106 62H136" stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
        </Harbour>
      }
      typed={typed}
      set={set}
      labels={{ distance: "Cleat to ring", height: "Ring higher or lower by", line: "The line" }}
      error={error}
    >
      {data && (
        <Box data-sum="slip">
          {data.says}
          <Evidence tag="computed" source="twice the way, and what a cleat takes of the line at both ends" />
        </Box>
      )}
    </Sum>
  );
}

function Heave() {
  const [typed, set] = useState({ distance: "9 m", height: "1 m", line: "16 mm" });
  const { data, error } = useLasting(
    ask("heave", typed, () => unwrap(api.GET("/api/v1/heaving-line", { params: { query: typed } }))),
  );
  return (
    <Sum
      title="A line that is thrown"
      picture={
        <Harbour boat="M4 66H110L98 100H14Z" wall="M226 44H300V110H226Z">
          <Cord d="M72 52C120 -8 210 -4 262 38" />
          <circle cx="264" cy="39" r="7" fill="var(--rope-1)" stroke="var(--rope-1-edge)" strokeWidth="2" />
          <circle cx="66" cy="34" r="7" fill="var(--ink)" />
          <path
            d="M66 42V66M66 48L78 52M66 48L56 56"
            stroke="var(--ink)"
            strokeWidth="5"
            strokeLinecap="round"
          />
        </Harbour>
      }
      typed={typed}
      set={set}
      labels={{
        distance: "To the hand ashore",
        height: "That is higher by",
        line: "Mooring line that follows",
      }}
      error={error}
    >
      {data && (
        <Box data-sum="heave">
          {data.says}
          <Evidence
            tag="computed"
            source="the way and a third more (our own share); the messenger there and back with its bends"
          />
          <Box fontSize="md" color="quiet">
            Thrown by hand: {data.throw_m.low} to {data.throw_m.high} m
            <Evidence tag={data.throw_m.tag} source={data.throw_m.source} />
          </Box>
        </Box>
      )}
    </Sum>
  );
}

function Tide() {
  const [typed, set] = useState({ rail: "1.5 m", edge: "2 m", rise: "1 m", fall: "1.5 m", fender: "600 mm" });
  const { data, error } = useLasting(
    ask("tide", typed, () => unwrap(api.GET("/api/v1/fender-tide", { params: { query: typed } }))),
  );
  return (
    <Sum
      title="A fender at a wall, by tide"
      picture={
        <svg viewBox="0 0 300 110" width="100%" aria-hidden="true">
          <path d="M190 14H300V110H190Z" fill="var(--object)" stroke="var(--object-edge)" strokeWidth="2" />
          <path
            d="M30 50H164Q166 92 140 104H56Q34 96 30 50Z"
            fill="var(--glass-wash)"
            stroke="var(--object-edge)"
            strokeWidth="2"
          />
          <rect
            x="167"
            y="58"
            width="19"
            height="36"
            rx="9"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <path d="M164 50L176 58" stroke="var(--rope-1-edge)" strokeWidth="3" />
          <g stroke="var(--glass)" strokeWidth="2">
            <path d="M0 98H190" strokeDasharray="6 5" />
            <path d="M12 92V66M7 72L12 64L17 72" fill="none" />
          </g>
        </svg>
      }
      typed={typed}
      set={set}
      labels={{
        rail: "Her rail above the water",
        edge: "Edge of the wall above the water",
        rise: "The water will rise",
        fall: "and fall",
        fender: "The fender",
      }}
      error={error}
    >
      {data && (
        <Box data-sum="tide" color={data.covers ? undefined : "flare"}>
          {data.says}
          <Evidence
            tag="computed"
            source="heights over the water; three times the range is common practice, no source"
          />
        </Box>
      )}
    </Sum>
  );
}
