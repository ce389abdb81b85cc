import {
  keepPreviousData,
  replaceEqualDeep,
  type UseQueryResult,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useRef } from "react";
import { type Answer, api, type Rig, type Schemas, unwrap } from "./client";

export function useCatalogue() {
  return useQuery({
    queryKey: ["catalogue"],
    queryFn: () => unwrap(api.GET("/api/catalogue")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** A query whose last good answer stays when the next is refused, as well as while it is on its way. */
function useLasting<T>(query: UseQueryResult<T>): { data: T | undefined; error: unknown } {
  const last = useRef<T>(undefined);
  if (query.data !== undefined) last.current = query.data;
  return { data: last.current, error: query.error };
}

/** The ranked answer for a rig. The last good answer stays while the next is worked out, or when it is refused. */
export function useAnswer(rig: Rig) {
  const last = useRef<Answer>(undefined);
  const query = useQuery({
    queryKey: ["choose", rig],
    queryFn: () => unwrap(api.POST("/api/choose", { body: rig })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  // What is the same as before stays the same object, so that only what differs is drawn again.
  if (query.data) last.current = replaceEqualDeep(last.current, query.data);
  return { answer: last.current, error: query.error, busy: query.isFetching };
}

/** Everything about a whole chain; the last good answer stays while the next is worked out. */
export function useWhole(rig: Rig, enabled: boolean) {
  return useLasting(
    useQuery({
      queryKey: ["whole", rig],
      enabled,
      queryFn: () => unwrap(api.POST("/api/rig", { body: rig })),
      placeholderData: keepPreviousData,
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
    }),
  );
}

/** What would change the first choice at a joint, and the numbers a map can be drawn over. */
export function useChanges(rig: Rig) {
  return useLasting(
    useQuery({
      queryKey: ["changes", rig],
      queryFn: () => unwrap(api.POST("/api/changes", { body: rig })),
      placeholderData: keepPreviousData,
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
    }),
  );
}

export function useChances(rig: Rig) {
  return useLasting(
    useQuery({
      queryKey: ["chances", rig],
      queryFn: () => unwrap(api.POST("/api/chances", { body: rig })),
      placeholderData: keepPreviousData,
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
    }),
  );
}

export function useShackle(diameter: string) {
  return useLasting(
    useQuery({
      queryKey: ["shackle", diameter],
      queryFn: () => unwrap(api.GET("/api/shackle", { params: { query: { diameter } } })),
      placeholderData: keepPreviousData,
      retry: false,
    }),
  );
}

export function useCard(id: string, rig: Rig | undefined) {
  return useLasting(
    useQuery({
      queryKey: ["procedure", id, rig],
      queryFn: () => unwrap(api.POST("/api/procedures/{id}", { params: { path: { id } }, body: rig })),
      enabled: id !== "",
      placeholderData: keepPreviousData,
      retry: false,
    }),
  );
}

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

/** What hand holds a load by a hitch or so many turns. */
export function useHold(query: HoldQuery) {
  return useLasting(
    useQuery({
      queryKey: ["hold", query],
      queryFn: () => unwrap(api.GET("/api/hold", { params: { query } })),
      placeholderData: keepPreviousData,
      retry: false,
    }),
  );
}

export type LoadKind = "wind" | "share" | "snatch" | "drag" | "hand";

/** Works out a load from figures as typed. */
export function workOutLoad(kind: LoadKind, query: Record<string, string | number | boolean>) {
  return unwrap(api.GET("/api/load/{kind}", { params: { path: { kind }, query } }));
}

export function useKnot(id: string) {
  return useQuery({
    queryKey: ["knot", id],
    queryFn: () => unwrap(api.GET("/api/knots/{id}", { params: { path: { id } } })),
    enabled: id !== "",
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export type DrawingOptions = {
  step?: number;
  view?: "tie" | "across" | "left" | "opposite";
  look?: "laid" | "braid" | "mono";
  labels?: boolean;
  ghost?: boolean;
};

type Text = Promise<{ data?: string; error?: Schemas["Problem"] }>;

export function useDrawing(id: string, options: DrawingOptions, drawn: boolean) {
  return useQuery({
    queryKey: ["drawing", id, options],
    queryFn: () =>
      unwrap(
        api.GET("/api/knots/{id}/drawing.svg", {
          params: { path: { id }, query: options },
          parseAs: "text",
        }) as Text,
      ),
    enabled: drawn,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useFaultDrawing(id: string, look: DrawingOptions["look"]) {
  return useQuery({
    queryKey: ["fault-drawing", id, look],
    queryFn: () =>
      unwrap(
        api.GET("/api/faults/{id}/drawing.svg", {
          params: { path: { id }, query: { look } },
          parseAs: "text",
        }) as Text,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useRigs() {
  return useQuery({ queryKey: ["rigs"], queryFn: () => unwrap(api.GET("/api/rigs")) });
}

export function useLines() {
  return useQuery({ queryKey: ["lines"], queryFn: () => unwrap(api.GET("/api/lines")) });
}

export function useSchools() {
  return useQuery({ queryKey: ["schools"], queryFn: () => unwrap(api.GET("/api/schools")) });
}

/** Chooses what is taught; every knot and answer may change with it. */
export function useTeach() {
  return useChange(
    (chosen: Record<string, string>) => unwrap(api.PUT("/api/schools", { body: { chosen } })),
    "schools",
    "knot",
    "choose",
    "whole",
    "changes",
    "chances",
    "catalogue",
  );
}

export function useLearners() {
  return useQuery({ queryKey: ["learners"], queryFn: () => unwrap(api.GET("/api/learners")) });
}

export function useAttempts(knot = "") {
  return useQuery({
    queryKey: ["attempts", knot],
    queryFn: () => unwrap(api.GET("/api/attempts", { params: { query: { knot, limit: 100 } } })),
  });
}

/** A change on the server, after which the named lists are read again. */
function useChange<In, Out>(change: (input: In) => Promise<Out>, ...stale: string[]) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => Promise.all(stale.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}

export function useSaveRig() {
  return useChange(
    ({ id, rig }: { id: number; rig: Rig }) =>
      id === 0
        ? unwrap(api.POST("/api/rigs", { body: { rig } as Schemas["StoreRig"] }))
        : unwrap(
            api.PUT("/api/rigs/{id}", { params: { path: { id } }, body: { rig } as Schemas["StoreRig"] }),
          ),
    "rigs",
  );
}

export function useAddLearner() {
  return useChange(
    (name: string) => unwrap(api.POST("/api/learners", { body: { name } as Schemas["StoreLearner"] })),
    "learners",
  );
}

/** An attempt as sent: the server gives number, name and time. */
export type NewAttempt = Omit<Schemas["StoreAttempt"], "id" | "at" | "learner">;

export function useAddAttempt() {
  return useChange(
    (attempt: NewAttempt) => unwrap(api.POST("/api/attempts", { body: attempt as Schemas["StoreAttempt"] })),
    "attempts",
    "learners",
  );
}

export function useRemoveAttempt() {
  return useChange(
    (id: number) => unwrap(api.DELETE("/api/attempts/{id}", { params: { path: { id } } })),
    "attempts",
    "learners",
  );
}

/** Reads a rig from the text of a file; throws what is wrong with it. */
export async function readRig(text: string): Promise<Rig> {
  let rig: Rig;
  try {
    rig = JSON.parse(text) as Rig;
  } catch (e) {
    throw new Error(`This file is not a rig: ${e instanceof Error ? e.message : "it is not JSON"}.`);
  }
  return (await unwrap(api.POST("/api/rig", { body: rig }))).rig;
}

/** Reads a length (mm) or a force (kN) as typed; throws an ApiError that says what would be understood. */
export function readQuantity(kind: "length" | "force", text: string, bare: "mm" | "m" | "kN" | "lb") {
  return unwrap(api.GET("/api/quantity", { params: { query: { kind, text, bare } } }));
}
