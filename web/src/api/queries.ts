import {
  keepPreviousData,
  queryOptions,
  experimental_streamedQuery as streamed,
} from "@tanstack/react-query";
import { api, type Rig, type Schemas, unwrap } from "./client";

/*
 * Every question to the server, once: its key and how it is asked. What depends on what is
 * taught begins with "taught", what is kept with "kept": after a change the whole prefix is
 * asked anew.
 */

const forGood = { staleTime: Number.POSITIVE_INFINITY } as const;
/** The last good answer stays while the next is worked out; a refusal is no reason to ask again. */
export const worked = { ...forGood, placeholderData: keepPreviousData, retry: false } as const;

type Text = Promise<{ data?: string; error?: Schemas["Problem"] }>;

export type DrawingOptions = {
  step?: number;
  view?: "tie" | "across" | "left" | "opposite";
  left?: boolean;
  look?: "laid" | "braid" | "mono";
  labels?: boolean;
  /** The half toward the end lighter than the half toward the standing part. */
  tones?: boolean;
  ghost?: boolean;
  /** Another way to it, by the id of its drawing. */
  way?: string;
  /** What it is tied to is drawn as. */
  on?: "ring" | "clew" | "post" | "rail" | "bollard" | "cleat" | "gap" | "eye" | "hook" | "unseen";
};

export type HoldQuery = {
  hitch: string;
  object: string;
  line: string;
  material: string;
  surface: string;
  wet: boolean;
  load: string;
  hand: string;
};

export type LogFilter = {
  learner?: number;
  knot?: string;
  outcome?: "right" | "slow" | "fault";
  condition?: "dry" | "wet" | "gloves" | "blind" | "real";
  group?: string;
};

export type LoadKind = "wind" | "share" | "snatch" | "drag" | "hand" | "rider";

type Plane = Schemas["WhatifPlane"];
type Row = Schemas["WhatifRow"];
export type ChoiceMap = { plane?: Plane; rows: Map<number, string[]> };

export const q = {
  taught: () => ["taught"] as const,
  kept: () => ["kept"] as const,

  catalogue: () =>
    queryOptions({
      queryKey: [...q.taught(), "catalogue"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/catalogue", { signal })),
      ...forGood,
    }),
  method: () =>
    queryOptions({
      queryKey: [...q.taught(), "method"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/method", { signal })),
      ...forGood,
    }),
  sayings: (rig: Rig) =>
    queryOptions({
      queryKey: [...q.taught(), "sayings", rig],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/sayings", { body: rig, signal })),
      ...worked,
    }),
  knot: (id: string) =>
    queryOptions({
      queryKey: [...q.taught(), "knot", id],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/knots/{id}", { params: { path: { id } }, signal })),
      enabled: id !== "",
      retry: false,
      ...forGood,
    }),
  drawing: (id: string, options: DrawingOptions) =>
    queryOptions({
      queryKey: [...q.taught(), "drawing", id, options],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/knots/{id}/drawing.svg", {
            params: { path: { id }, query: options },
            parseAs: "text",
            signal,
          }) as Text,
        ),
      placeholderData: keepPreviousData,
      ...forGood,
    }),
  qr: (link: string) =>
    queryOptions({
      queryKey: ["qr", link],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/qr.svg", { params: { query: { link } }, parseAs: "text", signal }) as Text),
      ...forGood,
    }),
  faultDrawing: (id: string, seen: Pick<DrawingOptions, "look" | "view" | "left"> & { bare?: boolean }) =>
    queryOptions({
      queryKey: [...q.taught(), "fault-drawing", id, seen],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/faults/{id}/drawing.svg", {
            params: { path: { id }, query: seen },
            parseAs: "text",
            signal,
          }) as Text,
        ),
      ...forGood,
    }),
  snug: (id: string) =>
    queryOptions({
      queryKey: [...q.taught(), "snug", id],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/knots/{id}/snug", { params: { path: { id } }, signal })),
      retry: false,
      ...forGood,
    }),
  snugFigure: (
    id: string,
    seen: { left?: boolean; line?: boolean; checks?: boolean; look?: "laid" | "braid" | "mono" },
  ) =>
    queryOptions({
      queryKey: [...q.taught(), "snug-figure", id, seen],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/knots/{id}/snug.svg", {
            params: { path: { id }, query: seen },
            parseAs: "text",
            signal,
          }) as Text,
        ),
      ...forGood,
    }),
  drill: (id: string) =>
    queryOptions({
      queryKey: [...q.taught(), "drill", id],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/knots/{id}/drill", { params: { path: { id } }, signal })),
      retry: false,
      ...forGood,
    }),
  drillDrawing: (id: string, set: string) =>
    queryOptions({
      queryKey: [...q.taught(), "drill-drawing", id, set],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/knots/{id}/drill.svg", {
            params: { path: { id }, query: { set } },
            parseAs: "text",
            signal,
          }) as Text,
        ),
      ...worked,
    }),
  drillVerdict: (id: string, set: string) =>
    queryOptions({
      queryKey: [...q.taught(), "drill-verdict", id, set],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/knots/{id}/drill/verdict", { params: { path: { id }, query: { set } }, signal }),
        ),
      ...forGood,
    }),

  wordDrawing: (id: string) =>
    queryOptions({
      queryKey: [...q.taught(), "word-drawing", id],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET("/api/v1/words/{id}/drawing.svg", {
            params: { path: { id } },
            parseAs: "text",
            signal,
          }) as Text,
        ),
      ...forGood,
    }),
  rolls: () =>
    queryOptions({
      queryKey: [...q.taught(), "rolls"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/knots/rolls", { signal })),
      ...forGood,
    }),
  fewest: (jobs: Schemas["CoverJob"][]) =>
    queryOptions({
      queryKey: [...q.taught(), "fewest", jobs],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/knots/fewest", { body: { jobs }, signal })),
      ...worked,
    }),
  drawnFaults: () =>
    queryOptions({
      queryKey: [...q.taught(), "drawn-faults"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/faults", { signal })),
      ...forGood,
    }),
  knotNotes: () =>
    queryOptions({
      queryKey: [...q.kept(), "knot-notes"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/knot-notes", { signal })),
    }),
  traced: (tracing: Schemas["TraceTrace"]) =>
    queryOptions({
      queryKey: [...q.taught(), "traced", tracing],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/knots/traced", { body: tracing, signal })),
      ...worked,
    }),

  answer: (rig: Rig) =>
    queryOptions({
      queryKey: [...q.taught(), "answer", rig],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/choices", { body: rig, signal })),
      ...worked,
    }),
  whole: (rig: Rig) =>
    queryOptions({
      queryKey: [...q.taught(), "whole", rig],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/rig-checks", { body: rig, signal })),
      ...worked,
    }),
  changes: (rig: Rig) =>
    queryOptions({
      queryKey: [...q.taught(), "changes", rig],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/changes", { body: rig, signal })),
      ...worked,
    }),
  chances: (rig: Rig) =>
    queryOptions({
      queryKey: [...q.taught(), "chances", rig],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/chances", { body: rig, signal })),
      ...worked,
    }),
  /** The map as far as it is known: it comes row by row. */
  map: (rig: Rig, x: string, y: string) =>
    queryOptions({
      queryKey: [...q.taught(), "map", rig, x, y],
      queryFn: streamed({
        streamFn: ({ signal }) => mapLines(rig, x, y, signal),
        reducer: (map: ChoiceMap, lines: (Plane | Row)[]) => {
          const rows = new Map(map.rows);
          let plane = map.plane;
          for (const l of lines) {
            if ("knots" in l) rows.set(l.row, l.knots);
            else plane = l;
          }
          return { plane, rows };
        },
        initialValue: { rows: new Map() } as ChoiceMap,
      }),
      enabled: x !== "" && y !== "" && x !== y,
      retry: false,
      ...forGood,
    }),

  hold: (query: HoldQuery) =>
    queryOptions({
      queryKey: [...q.taught(), "hold", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/holds", { params: { query }, signal })),
      ...worked,
    }),
  fender: (query: { rail: string; pontoon: string; fender: string; line: string }) =>
    queryOptions({
      queryKey: ["fender", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/fender", { params: { query }, signal })),
      ...worked,
    }),
  tow: (query: { takeoffs: string; want: string; on: "pylon" | "tower" | "hook" | "eye" }) =>
    queryOptions({
      queryKey: ["tow", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/tow", { params: { query }, signal })),
      ...worked,
    }),
  coils: (query: { length: string; across: string }) =>
    queryOptions({
      queryKey: ["coils", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/coils", { params: { query }, signal })),
      ...worked,
    }),
  shackle: (query: {
    diameter: string;
    material: string;
    clear: string;
    load: string;
    clamp?: string;
    stopper?: string;
  }) =>
    queryOptions({
      queryKey: [...q.taught(), "shackle", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/shackle", { params: { query }, signal })),
      ...worked,
    }),
  card: (id: string, rig: Rig | undefined) =>
    queryOptions({
      queryKey: [...q.taught(), "card", id, rig],
      queryFn: ({ signal }) =>
        unwrap(api.POST("/api/v1/procedures/{id}/card", { params: { path: { id } }, body: rig, signal })),
      enabled: id !== "",
      ...worked,
    }),
  doctrines: () =>
    queryOptions({
      queryKey: [...q.taught(), "doctrines"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/doctrines", { signal })),
    }),

  inspections: () =>
    queryOptions({
      queryKey: [...q.kept(), "inspections"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/inspections", { signal })),
    }),
  rigs: () =>
    queryOptions({
      queryKey: [...q.kept(), "rigs"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/rigs", { signal })),
    }),
  lines: () =>
    queryOptions({
      queryKey: [...q.kept(), "lines"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/lines", { signal })),
    }),
  learners: () =>
    queryOptions({
      queryKey: [...q.kept(), "learners"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/learners", { signal })),
    }),
  board: (group = "") =>
    queryOptions({
      queryKey: [...q.kept(), "board", group],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/board", { params: { query: { group } }, signal })),
      placeholderData: keepPreviousData,
    }),
  report: (group = "") =>
    queryOptions({
      queryKey: [...q.kept(), "report", group],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/class-report", { params: { query: { group } }, signal })),
      placeholderData: keepPreviousData,
    }),
  due: (learner = 0) =>
    queryOptions({
      queryKey: [...q.kept(), "due", learner],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/due", { params: { query: { learner } }, signal })),
    }),
  person: (id: number) =>
    queryOptions({
      queryKey: [...q.kept(), "person", id],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/learners/{id}/page", { params: { path: { id } }, signal })),
      retry: false,
    }),
  lessons: () =>
    queryOptions({
      queryKey: [...q.kept(), "lessons"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/lessons", { signal })),
    }),
  lesson: (id: number) =>
    queryOptions({
      queryKey: [...q.kept(), "lessons", id],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/lessons/{id}", { params: { path: { id } }, signal })),
      enabled: id > 0,
      retry: false,
    }),
  plan: (request: Schemas["LessonRequest"]) =>
    queryOptions({
      queryKey: [...q.kept(), "plan", request],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/lesson-plan", { body: request, signal })),
      enabled: request.knots.length > 0,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  series: () =>
    queryOptions({
      queryKey: [...q.kept(), "series"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/series", { signal })),
    }),
  seriesPage: (id: number) =>
    queryOptions({
      queryKey: [...q.kept(), "series", id],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/series/{id}/page", { params: { path: { id } }, signal })),
      enabled: id > 0,
    }),
  pulls: () =>
    queryOptions({
      queryKey: [...q.kept(), "pulls"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/pulls", { signal })),
    }),
  trace: (pull: number) =>
    queryOptions({
      queryKey: [...q.kept(), "trace", pull],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/pulls/{id}/trace", { params: { path: { id: pull } }, signal })),
      ...forGood,
    }),
  bench: () =>
    queryOptions({
      queryKey: [...q.kept(), "bench"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/bench/settings", { signal })),
    }),
  proofs: () =>
    queryOptions({
      queryKey: [...q.kept(), "proofs"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/proofs", { signal })),
    }),
  ledger: () =>
    queryOptions({
      queryKey: [...q.kept(), "ledger"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/bench/ledger", { signal })),
    }),
  failures: () =>
    queryOptions({
      queryKey: [...q.taught(), "failures"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/bench/failures", { signal })),
      ...forGood,
    }),
  friction: (body: Schemas["FrictionTrial"]) =>
    queryOptions({
      queryKey: ["friction", body],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/bench/friction", { body, signal })),
      enabled: body.trials.length > 0,
      ...worked,
    }),
  unrecorded: () =>
    queryOptions({
      queryKey: [...q.kept(), "unrecorded"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/bench/pulls", { signal })),
    }),
  session: () =>
    queryOptions({
      queryKey: ["session"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/session", { signal })),
      ...forGood,
    }),
  me: () =>
    queryOptions({
      queryKey: [...q.kept(), "me"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/me", { signal })),
    }),
  joins: () =>
    queryOptions({
      queryKey: [...q.kept(), "joins"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/joins", { signal })),
    }),
  quayRounds: () =>
    queryOptions({
      queryKey: [...q.kept(), "quay"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/quay-rounds", { signal })),
    }),
  gear: () =>
    queryOptions({
      queryKey: [...q.kept(), "gear"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/gear", { signal })),
    }),
  feeds: () =>
    queryOptions({
      queryKey: [...q.kept(), "feeds"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/feeds", { signal })),
    }),
  attemptsOf: (learner: number) =>
    queryOptions({
      queryKey: [...q.kept(), "attempts", "of", learner],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/attempts", { params: { query: { learner, limit: 1000 } }, signal })),
    }),
  log: (query: LogFilter) =>
    queryOptions({
      queryKey: [...q.kept(), "attempts", "log", query],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/attempts", { params: { query: { ...query, limit: 300 } }, signal })),
      placeholderData: keepPreviousData,
    }),
  totals: (query: LogFilter) =>
    queryOptions({
      queryKey: [...q.kept(), "attempts", "totals", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/attempts/totals", { params: { query }, signal })),
      placeholderData: keepPreviousData,
    }),
  attempts: (knot = "") =>
    queryOptions({
      queryKey: [...q.kept(), "attempts", knot],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/attempts", { params: { query: { knot, limit: 100 } }, signal })),
    }),
};

/** The lines of a map as they come, those that came together together. */
async function* mapLines(
  rig: Rig,
  x: string,
  y: string,
  signal: AbortSignal,
): AsyncGenerator<(Plane | Row)[]> {
  const { data, error } = await api.POST("/api/v1/maps", {
    params: { query: { x, y } },
    body: rig,
    parseAs: "stream",
    signal,
  });
  if (error || !data) throw new Error("This map cannot be drawn. Choose other numbers.");
  const reader = (data as unknown as ReadableStream<Uint8Array>)
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  for (let rest = ""; ; ) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + value).split("\n");
    rest = lines.pop() ?? "";
    if (lines.length > 0) yield lines.map((l) => JSON.parse(l) as Plane | Row);
  }
}
