import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Rig, Schemas } from "../api/client";
import { workOutLoad } from "../api/hooks";
import type { LoadKind } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { force, range } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Card } from "../ui/page";
import { Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";
import { lineOf } from "./document";

type Field = { id: string; label: string; start: string };

const kinds: { id: LoadKind; name: string; fields: Field[] }[] = [
  {
    id: "wind",
    name: "Wind on a moored boat",
    fields: [
      { id: "loa", label: "Length over all", start: "30 ft" },
      { id: "wind", label: "Wind", start: "30 kn" },
      { id: "area", label: "Area to the wind, m² (0: by length)", start: "0" },
    ],
  },
  {
    id: "share",
    name: "An angle, or several lines",
    fields: [
      { id: "force", label: "Force", start: "2.4 kN" },
      { id: "angle", label: "Angle to it, degrees", start: "30" },
      { id: "lines", label: "Lines", start: "2" },
    ],
  },
  {
    id: "snatch",
    name: "A boat brought up short",
    fields: [
      { id: "mass", label: "Mass, kg", start: "1500" },
      { id: "speed", label: "Drift, m/s", start: "0.5" },
      { id: "length", label: "Length that stretches", start: "8 m" },
    ],
  },
  {
    id: "drag",
    name: "Drag and a running fish",
    fields: [
      { id: "class", label: "Line class", start: "20 lb" },
      { id: "shock", label: "Shock, as a share of the class", start: "0.2" },
    ],
  },
  {
    id: "hand",
    name: "Hauling by hand",
    fields: [{ id: "people", label: "People on the line", start: "1" }],
  },
  {
    id: "rider",
    name: "A towed rider",
    fields: [
      { id: "force", label: "Steady pull, by your own spring balance", start: "" },
      { id: "mass", label: "Rider and board, kg", start: "" },
      { id: "speed", label: "Speed reached, m/s", start: "" },
      { id: "seconds", label: "In how many seconds", start: "" },
    ],
  },
];

/** Works out the load and puts it into the rig. */
export function LoadDialog(props: {
  open: boolean;
  close: () => void;
  rig: Rig;
  change: (rig: Rig) => void;
  fishing: boolean;
}) {
  const { open, close, rig, change, fishing } = props;
  const [kind, setKind] = useState<LoadKind>(fishing ? "drag" : "wind");
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [result, setResult] = useState<Schemas["Load"]>();
  const [error, setError] = useState<unknown>();
  const now = kinds.find((k) => k.id === kind) ?? kinds[0];
  const value = (f: Field) => typed[f.id] ?? f.start;
  const work = async () => {
    setError(undefined);
    try {
      const query: Record<string, string> = Object.fromEntries(
        (now?.fields ?? []).map((f) => [f.id, value(f)]),
      );
      if (kind === "snatch") {
        const line = lineOf(rig);
        query.material = line.material;
        query.diameter = `${line.diameter_mm ?? 0} mm`;
        query.wet = String(!rig.dry);
      }
      setResult(await workOutLoad(kind, query));
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet open={open} close={close} title="Work out the load">
      <Flex gap="2" wrap="wrap" role="group" aria-label="Kind of load">
        {kinds.map((k) => (
          <Press
            key={k.id}
            aria-pressed={k.id === kind}
            onClick={() => {
              setKind(k.id);
              setResult(undefined);
              setError(undefined);
            }}
          >
            {k.name}
          </Press>
        ))}
      </Flex>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void work();
        }}
      >
        {now?.fields.map((f) => (
          <Box key={f.id} mt="3">
            <Typed
              label={f.label}
              value={value(f)}
              set={(v) => {
                setTyped({ ...typed, [f.id]: v });
                setResult(undefined);
              }}
            />
          </Box>
        ))}
        <Press type="submit" look="main" mt="3">
          Work it out
        </Press>
      </form>
      <Box mt="3">
        <Trouble error={error} />
        {result && (
          <Card kind="note" data-testid="load-result">
            <Box fontSize="lg" fontWeight="700">
              {result.says}
            </Box>
            {result.working.map((w) => (
              <Box key={w} fontSize="md">
                {w}
              </Box>
            ))}
            <Box fontSize="md">
              Likely between {range(result.load_kn, (v) => force(v, fishing))}{" "}
              <Evidence tag={result.load_kn.tag} source={result.load_kn.source} />
            </Box>
            <Press
              mt="2"
              look="main"
              onClick={() => {
                change({
                  ...rig,
                  peak_kn: result.peak_kn,
                  character: result.character,
                });
                close();
              }}
            >
              Use {force(result.peak_kn, fishing)} in this rig
            </Press>
          </Card>
        )}
      </Box>
    </Sheet>
  );
}
