import { Box, Flex, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Evidence } from "../ui/evidence";
import { reach } from "../ui/format";
import { Trouble } from "../ui/notes";
import { Part } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

/** What to bring, and how it is cut from the lines at hand. */
export function Kit({ planned }: { planned: Schemas["PlannedLesson"] }) {
  const { kit, cuts, spools } = planned;
  const [adding, setAdding] = useState(false);
  return (
    <>
      <Part title="To bring">
        {kit.things.map((t) => (
          <Flex key={t.name} gap="2" py="1" borderTop="1px solid" borderColor="rule">
            <Box w="34px" fontWeight="700" textAlign="right">
              {t.n}
            </Box>
            <Box>{t.name}</Box>
          </Flex>
        ))}
        <Evidence
          tag="trade"
          source="a line of 2 m for each, 3 m in two colours to show; common practice, no source"
        />
      </Part>
      <Part title={`To cut: ${reach(kit.metres)}`} mt="4">
        {!cuts && <Box>No line with its length is at hand. Add yours, and it is said how to cut them.</Box>}
        {cuts?.cuts.map((c) => (
          <Box key={c.spool} py="1" borderTop="1px solid" borderColor="rule">
            <strong>{spools[c.spool]}</strong>: {pieces(c.pieces_m)}; {reach(c.left_m)} left
          </Box>
        ))}
        {cuts?.missing_m && cuts.missing_m.length > 0 && (
          <Box color="flare" fontWeight="700" mt="1">
            Not enough line for {pieces(cuts.missing_m)}.
          </Box>
        )}
        {cuts && (
          <Box color="quiet" mt="1">
            {reach(cuts.waste_m)} stay on the lines that are cut.
          </Box>
        )}
        <Press mt="2" className="no-print" onClick={() => setAdding(true)}>
          Your lines
        </Press>
      </Part>
      <Lines open={adding} close={() => setAdding(false)} />
    </>
  );
}

/** Pieces, equal ones together. */
export function pieces(list: number[]): string {
  const n = new Map<number, number>();
  for (const m of list) n.set(m, (n.get(m) ?? 0) + 1);
  return [...n].map(([m, k]) => `${k} × ${reach(m)}`).join(", ");
}

/** One's own lines, with the length left of each. */
function Lines({ open, close }: { open: boolean; close: () => void }) {
  const lines = useQuery({ ...q.lines(), enabled: open }).data ?? [];
  const materials = useCatalogue().data?.materials.filter((m) => !m.fishing && !m.unknotted) ?? [];
  const [now, set] = useState({ name: "", material: "polyester", diameter: "10", length: "50" });
  const add = useKept(() => {
    const m = materials.find((x) => x.id === now.material);
    return unwrap(
      api.POST("/api/v1/lines", {
        body: {
          name: now.name,
          material: now.material,
          construction: m?.constructions[0],
          diameter_mm: Number(now.diameter.replace(",", ".")),
          length_m: Number(now.length.replace(",", ".")),
        } as Schemas["LockerLine"],
      }),
    );
  });
  const change = useKept((l: Schemas["LockerLine"]) =>
    unwrap(
      api.PUT("/api/v1/lines/{id}", {
        params: { path: { id: l.id }, header: { "If-Match": `"${l.revision}"` } },
        body: l,
      }),
    ),
  );
  return (
    <Sheet open={open} close={close} title="Your lines">
      {lines.map((l) => (
        <Flex key={l.id} align="center" gap="2" py="1" borderTop="1px solid" borderColor="rule">
          <Box flex="1">{l.name}</Box>
          <Input
            key={l.revision}
            aria-label={`Length left of ${l.name}, metres`}
            type="number"
            step="0.5"
            w="100px"
            defaultValue={l.length_m ?? ""}
            onBlur={(e) => {
              const length_m = Number(e.target.value) || undefined;
              if (length_m !== (l.length_m || undefined)) change.mutate({ ...l, length_m });
            }}
          />
          m
        </Flex>
      ))}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate(undefined, { onSuccess: () => set({ ...now, name: "" }) });
        }}
      >
        <Flex gap="2" mt="3" wrap="wrap" align="end">
          <Box w="180px">
            <Typed label="Name" value={now.name} set={(name) => set({ ...now, name })} />
          </Box>
          <Box w="150px">
            <Pick
              label="Material"
              value={now.material}
              set={(material) => set({ ...now, material })}
              list={materials}
            />
          </Box>
          <Box w="90px">
            <Typed label="mm thick" value={now.diameter} set={(diameter) => set({ ...now, diameter })} />
          </Box>
          <Box w="90px">
            <Typed label="m left" value={now.length} set={(length) => set({ ...now, length })} />
          </Box>
          <Press type="submit" disabled={!now.name.trim()}>
            Add
          </Press>
        </Flex>
      </form>
      <Trouble error={add.error ?? change.error} />
    </Sheet>
  );
}
