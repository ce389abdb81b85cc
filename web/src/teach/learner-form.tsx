import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import type { Learner } from "../api/client";
import { Press } from "../ui/button";
import { Trouble } from "../ui/notes";
import { Typed } from "../ui/pick";

/** What is known of a learner. */
export function LearnerForm(p: { learner: Partial<Learner>; save: (l: Learner) => void; error: unknown }) {
  const { learner, save, error } = p;
  const [now, set] = useState({
    name: learner.name ?? "",
    groups: learner.groups?.join(", ") ?? "",
    hand: learner.hand ?? "",
    craft: learner.craft ?? "",
    course: learner.course ?? "",
    rope: learner.rope_m ? String(learner.rope_m) : "",
    note: learner.note ?? "",
  });
  const one = (key: keyof typeof now, label: string) => (
    <Typed label={label} value={now[key]} set={(v) => set({ ...now, [key]: v })} />
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save({
          ...learner,
          name: now.name,
          groups: now.groups
            .split(/[,;]/)
            .map((g) => g.trim())
            .filter(Boolean),
          hand: (now.hand || undefined) as Learner["hand"],
          craft: now.craft,
          course: now.course,
          rope_m: Number(now.rope.replace(",", ".")) || undefined,
          note: now.note,
        } as Learner);
      }}
    >
      <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr" }} gap="3">
        {one("name", "Name")}
        {one("groups", "Classes, with commas")}
        {one("craft", "Craft, as in lugger, kelp punt")}
        {one("course", "Course, as in leisure, service")}
        {one("rope", "Line a towed rider wants, in metres")}
        {one("note", "Note")}
      </Grid>
      <Flex gap="2" mt="3" align="center" role="group" aria-label="Hand">
        <Box color="quiet">Hand</Box>
        {(["right", "left"] as const).map((hand) => (
          <Press
            key={hand}
            small
            aria-pressed={now.hand === hand}
            onClick={() => set({ ...now, hand: now.hand === hand ? "" : hand })}
          >
            {hand}
          </Press>
        ))}
      </Flex>
      <Trouble error={error as Error | null} />
      <Press type="submit" look="main" mt="3">
        Save
      </Press>
    </form>
  );
}
