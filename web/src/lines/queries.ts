import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../api/client";
import { q, worked } from "../api/queries";

export type LineCard = Schemas["LineCard"];
export type LinePage = Schemas["LinePage"];
export type Look = Schemas["LockerLook"];
export type TowCard = Schemas["TowCard"];
export type TowBook = Schemas["TowlineBook"];
export type Berth = Schemas["MooringBerth"];
export type Plan = Schemas["MooringPlan"];
export type Use = Schemas["UsageEntry"];
export type Outcome = Use["outcome"];
export type FileKind = "locker" | "use" | "leaders" | "tow-lines" | "moorings";
export type UseFilter = {
  line?: string;
  knot?: string;
  outcome?: Outcome;
  wrong?: boolean;
  where?: string;
  from?: string;
  to?: string;
};

/** Questions about lines in use. */
export const lq = {
  locker: () =>
    queryOptions({
      queryKey: [...q.kept(), "locker"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/locker", { signal })),
    }),
  line: (code: string) =>
    queryOptions({
      queryKey: [...q.kept(), "locker", code],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/locker/{code}", { params: { path: { code } }, signal })),
      retry: false,
    }),
  leaders: () =>
    queryOptions({
      queryKey: [...q.kept(), "leaders"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/leaders/left", { signal })),
    }),
  moor: (plan: Plan) =>
    queryOptions({
      queryKey: [...q.taught(), "moor", plan],
      queryFn: ({ signal }) => unwrap(api.POST("/api/v1/moorings/solve", { body: plan, signal })),
      ...worked,
    }),
  tows: () =>
    queryOptions({
      queryKey: [...q.kept(), "tow-lines"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/tow-lines/places", { signal })),
    }),
  berths: () =>
    queryOptions({
      queryKey: [...q.kept(), "moorings"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/moorings", { signal })),
    }),
  wind: () =>
    queryOptions({
      queryKey: [...q.kept(), "wind"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/wind", { signal })),
    }),
  uses: (query: UseFilter) =>
    queryOptions({
      queryKey: [...q.kept(), "uses", query],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/uses", { params: { query: { ...query, limit: 200 } }, signal })),
      placeholderData: keepPreviousData,
    }),
  sums: (query: UseFilter) =>
    queryOptions({
      queryKey: [...q.kept(), "uses", "sums", query],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/uses/sums", { params: { query }, signal })),
      placeholderData: keepPreviousData,
    }),
  knotUse: (id: string) =>
    queryOptions({
      queryKey: [...q.kept(), "uses", "knot", id],
      queryFn: ({ signal }) =>
        unwrap(api.GET("/api/v1/knots/{id}/use", { params: { path: { id } }, signal })),
    }),
  todo: () =>
    queryOptions({
      queryKey: [...q.kept(), "to-do"],
      queryFn: ({ signal }) => unwrap(api.GET("/api/v1/to-do", { signal })),
      // The wind rises while nobody changes anything.
      refetchInterval: 60_000,
    }),
};
