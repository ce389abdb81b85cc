import type { Schemas } from "../api/client";

export type Pull = Schemas["PullRow"];
export type Outcome = Schemas["BenchPull"]["outcome"];
export type Where = NonNullable<Schemas["BenchPull"]["where"]>;

export const outcomes: { id: Outcome; name: string }[] = [
  { id: "broke", name: "Broke" },
  { id: "slipped", name: "Slipped out" },
  { id: "caught", name: "Slipped, then caught" },
  { id: "crept", name: "Crept" },
  { id: "held", name: "Held" },
];

export const wheres: { id: Where; name: string }[] = [
  { id: "a", name: "Knot A" },
  { id: "b", name: "Knot B" },
  { id: "in-a", name: "Inside knot A" },
  { id: "in-b", name: "Inside knot B" },
  { id: "line", name: "In the line" },
  { id: "grip", name: "At the grip" },
];

/** Whether something gave for good, so that the place must be said. */
export const gave = (o: Outcome) => o === "broke" || o === "slipped";
