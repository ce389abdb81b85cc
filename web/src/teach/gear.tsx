import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../api/client";
import { useCatalogue, useKept } from "../api/hooks";
import { q } from "../api/queries";
import { Press } from "../ui/button";
import { Label } from "../ui/label";
import { Trouble } from "../ui/notes";
import { Card, Part } from "../ui/page";
import { Pick, Typed } from "../ui/pick";
import { Sheet } from "../ui/sheet";

type Gear = Schemas["PracticeGear"];

const day = (at: string | undefined) =>
  at ? new Date(at).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" }) : "";

/** Knots on gear: who tied them, who looked, when to look again; each with its label. */
export function GearPart() {
  const { data, error } = useQuery(q.gear());
  const [edit, setEdit] = useState<Partial<Gear>>();
  const [label, setLabel] = useState<Gear>();
  const now = new Date().toISOString();
  return (
    <Part title="Knots on gear" mt="6">
      <Flex gap="3" align="center" wrap="wrap">
        <Box color="quiet" flex="1" minW="260px">
          Gear is lost, and people are hurt, by a knot that somebody else tied. Who tied it, who looked at it,
          when it is looked at again. This approves nothing.
        </Box>
        <Press onClick={() => setEdit({})}>Add a thing</Press>
      </Flex>
      <Trouble error={error} />
      <Grid templateColumns="repeat(auto-fill, minmax(min(320px, 100%), 1fr))" gap="3" mt="2">
        {data?.map((g) => (
          <Card key={g.id} kind={g.again && g.again < now ? "warn" : undefined} data-gear={g.what}>
            <Box className="head" fontSize="lg">
              {g.what}
            </Box>
            <Box>
              {g.knot.replaceAll("-", " ")}, tied by {g.tied.name}, {day(g.tied.at)}
            </Box>
            <Box>
              {g.checked?.name
                ? `looked at by ${g.checked.name}, ${day(g.checked.at)}`
                : "nobody else has looked"}
            </Box>
            {g.again && (
              <Box fontWeight="700">
                {g.again < now ? "Look again now" : "Look again"}: {day(g.again)}
              </Box>
            )}
            <Flex gap="2" mt="2">
              <Press small onClick={() => setEdit(g)}>
                Look at it
              </Press>
              <Press small onClick={() => setLabel(g)}>
                Label {g.code}
              </Press>
            </Flex>
          </Card>
        ))}
      </Grid>
      {edit && <Edit gear={edit} close={() => setEdit(undefined)} />}
      {label && (
        <Label
          what={label.what}
          code={label.code}
          to={`/g/${label.code}`}
          lines={[`tied by ${label.tied.name}`, `look again ${day(label.again) || "before use"}`]}
          close={() => setLabel(undefined)}
        />
      )}
    </Part>
  );
}

function Edit({ gear, close }: { gear: Partial<Gear>; close: () => void }) {
  const knots = useCatalogue().data?.knots ?? [];
  const [now, set] = useState({
    what: gear.what ?? "",
    knot: gear.knot ?? "bowline",
    tied: gear.tied?.name ?? "",
    checked: "",
    again: gear.again?.slice(0, 10) ?? "",
    place: gear.place ?? "",
    person: gear.person ?? false,
  });
  const save = useKept(() => {
    const body = {
      ...gear,
      what: now.what,
      knot: now.knot,
      place: now.place,
      person: now.person,
      tied: { name: now.tied, at: gear.tied?.name === now.tied ? gear.tied?.at : undefined },
      checked: now.checked ? { name: now.checked } : gear.checked,
      again: now.again ? new Date(now.again).toISOString() : undefined,
    } as Gear;
    return gear.id
      ? unwrap(
          api.PUT("/api/v1/gear/{id}", {
            params: { path: { id: gear.id }, header: { "If-Match": `"${gear.revision}"` } },
            body,
          }),
        )
      : unwrap(api.POST("/api/v1/gear", { body }));
  });
  const remove = useKept((id: number) =>
    unwrap(api.DELETE("/api/v1/gear/{id}", { params: { path: { id } } })),
  );
  const one = (key: "what" | "tied" | "checked" | "place", label: string) => (
    <Typed label={label} value={now[key]} set={(v) => set({ ...now, [key]: v })} />
  );
  return (
    <Sheet open close={close} title={gear.what ?? "A thing with a knot on it"}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(undefined, { onSuccess: close });
        }}
      >
        <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr" }} gap="3">
          {one("what", "What it is")}
          <Pick label="Knot" value={now.knot} set={(knot) => set({ ...now, knot })} list={knots} />
          {one("tied", "Tied by")}
          {one("checked", gear.checked?.name ? "Looked at again by" : "Looked at by, somebody else")}
          {one("place", "Where it lies")}
          <Typed
            label="Look again on"
            type="date"
            value={now.again}
            set={(again) => set({ ...now, again })}
          />
        </Grid>
        <Press mt="3" small aria-pressed={now.person} onClick={() => set({ ...now, person: !now.person })}>
          Somebody's life hangs on it
        </Press>
        <Trouble error={save.error ?? remove.error} />
        <Flex gap="2" mt="3">
          <Press type="submit" look="main">
            Save
          </Press>
          {gear.id && (
            <Press onClick={() => remove.mutate(gear.id as number, { onSuccess: close })}>
              Take it off the list
            </Press>
          )}
        </Flex>
      </form>
    </Sheet>
  );
}
