import { Box, Field, Flex, Input, Textarea } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type KnotPage, type Schemas, unwrap } from "../api/client";
import { useKept, useRole } from "../api/hooks";
import { type DrawingOptions, q } from "../api/queries";
import { Press } from "../ui/button";
import { forgetDraft, useDraft } from "../ui/draft";
import { Evidence } from "../ui/evidence";
import { Trouble } from "../ui/notes";
import { Card, Part } from "../ui/page";
import { Pictured } from "../ui/pictured";
import { Sheet } from "../ui/sheet";
import { Worded } from "./words";

type Note = Schemas["PracticeNote"];

const practice = "from teaching: common practice, no source; the words are ours";

/** What to remember it by: ours, and what the instructor added. */
export function Aid({ knot, left }: { knot: KnotPage; left: boolean }) {
  const told = (left ? knot.left : knot).told;
  const role = useRole();
  const mine = role !== "learner";
  const notes = useQuery({ ...q.knotNotes(), enabled: mine }).data?.filter((n) => n.knot === knot.id) ?? [];
  const [edit, setEdit] = useState<Partial<Note>>();
  return (
    <Box mt="4">
      <Card kind="note" data-testid="aid">
        <Flex gap="2" align="center">
          <Box color="quiet">Remember it by</Box>
          <Evidence tag="trade" source={practice} bare />
        </Flex>
        <Box className="head" fontSize="xl">
          {told.aid}
        </Box>
        {notes.map((n) => (
          <Flex key={n.id} gap="2" mt="2" align="baseline" data-note={n.aid ? "aid" : "note"}>
            <Box flex="1">
              <Box as="span" color="quiet">
                ★ {n.aid ? "yours" : "your note"}:{" "}
              </Box>
              {n.text}
              {n.source && <Box as="span" color="quiet">{` (${n.source})`}</Box>}
            </Box>
            <Press small look="bare" onClick={() => setEdit(n)}>
              Change
            </Press>
          </Flex>
        ))}
        {mine && (
          <Press small look="bare" mt="1" ms="-2" onClick={() => setEdit({})}>
            Add your own
          </Press>
        )}
      </Card>
      {edit && <NoteSheet key={edit.id ?? 0} knot={knot.id} note={edit} close={() => setEdit(undefined)} />}
    </Box>
  );
}

function NoteSheet({ knot, note, close }: { knot: string; note: Partial<Note>; close: () => void }) {
  const place = `knot-note ${knot} ${note.id ?? "new"}`;
  const [form, set] = useDraft(place, () => ({
    aid: note.aid ?? true,
    text: note.text ?? "",
    source: note.source ?? "",
  }));
  const done = () => {
    forgetDraft(place);
    close();
  };
  const save = useKept(() => {
    const body = { ...form, knot } as Note;
    return note.id
      ? unwrap(
          api.PUT("/api/v1/knot-notes/{id}", {
            params: { path: { id: note.id }, header: { "If-Match": `"${note.revision}"` } },
            body,
          }),
        )
      : unwrap(api.POST("/api/v1/knot-notes", { body }));
  });
  const remove = useKept(() =>
    unwrap(api.DELETE("/api/v1/knot-notes/{id}", { params: { path: { id: note.id ?? 0 } } })),
  );
  return (
    <Sheet
      open
      close={close}
      title={note.id ? "Your words" : "Add your own"}
      foot={
        <>
          {note.id && (
            <Press onClick={() => remove.mutateAsync(undefined).then(done, () => undefined)}>Remove</Press>
          )}
          <Box flex="1" />
          <Press onClick={close}>Not now</Press>
          <Press
            look="main"
            disabled={save.isPending || form.text.trim() === ""}
            onClick={() => save.mutateAsync(undefined).then(done, () => undefined)}
          >
            Keep
          </Press>
        </>
      }
    >
      <Flex gap="2" mb="3" role="group" aria-label="What it is">
        <Press small aria-pressed={form.aid} onClick={() => set({ aid: true })}>
          To remember it by
        </Press>
        <Press small aria-pressed={!form.aid} onClick={() => set({ aid: false })}>
          A note
        </Press>
      </Flex>
      <Field.Root>
        <Field.Label>
          {form.aid ? "What you say" : "Who uses it, which version is right, seen where"}
        </Field.Label>
        <Textarea
          w="100%"
          p="2"
          border="1.5px solid"
          borderColor="ink"
          borderRadius="sm"
          bg="sheet"
          rows={4}
          maxLength={600}
          value={form.text}
          onChange={(e) => set({ text: e.target.value })}
        />
      </Field.Root>
      <Field.Root mt="3">
        <Field.Label>From whom, if you like</Field.Label>
        <Input maxLength={200} value={form.source} onChange={(e) => set({ source: e.target.value })} />
      </Field.Root>
      <Trouble error={save.error ?? remove.error} />
    </Sheet>
  );
}

/** Why one would use it, what beginners get wrong, what to do when it has jammed. */
export function Why({ knot }: { knot: KnotPage }) {
  return (
    <Part
      title={
        <Flex gap="2" align="center">
          Why this one <Evidence tag="trade" source={practice} bare />
        </Flex>
      }
    >
      {knot.told.why}
    </Part>
  );
}

export function Slips({ knot, left }: { knot: KnotPage; left: boolean }) {
  const told = (left ? knot.left : knot).told;
  return (
    <>
      <Part
        title={
          <Flex gap="2" align="center">
            Beginners get wrong, most often first{" "}
            <Evidence tag="trade" source={`${practice}; the order is our own estimate`} bare />
          </Flex>
        }
      >
        <Box as="ol" ps="5" listStyleType="decimal">
          {told.slips.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </Box>
      </Part>
      {told.ways && (
        <Part title="Another way to it">
          {told.ways.map((w) => (
            <Box key={w}>{w}</Box>
          ))}
        </Part>
      )}
      {told.seat && (
        <Part title="Drawing it up">
          {told.seat}
          {told.tip && <Box mt="1">{told.tip}</Box>}
        </Part>
      )}
      <Part title="When it has jammed">{told.undo}</Part>
      <Part title="Try it before you trust it">
        {told.try}
        {told.tools && <Box mt="1">At hand: {told.tools.join(", ")}.</Box>}
      </Part>
    </>
  );
}

/** Another way to the knot, or the knot on another thing, picture by picture. */
export function Ways({ knot, ...seen }: { knot: KnotPage } & Pick<DrawingOptions, "left" | "look" | "view">) {
  const told = (seen.left ? knot.left : knot).told;
  return told.drawn?.map((way) => (
    <Part key={way.drawing} title={way.name}>
      <Box data-way={way.drawing}>
        <Pictured
          steps={way.steps.map((says, i) => ({
            says,
            knot: knot.id,
            name: knot.name,
            options: { ...seen, way: way.drawing, step: i + 1 },
          }))}
          word={(says) => <Worded text={says} />}
        />
      </Box>
    </Part>
  ));
}
