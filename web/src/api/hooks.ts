import {
  replaceEqualDeep,
  type UseQueryOptions,
  type UseQueryResult,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useRef } from "react";
import type { bareUnit } from "../ui/format";
import { api, type Rig, type SavedRig, type Schemas, unwrap } from "./client";
import { type LoadKind, q } from "./queries";

/** A query whose last good answer stays when the next is refused, as well as while it is on its way. */
export function useLasting<T, K extends readonly unknown[]>(options: UseQueryOptions<T, Error, T, K>) {
  const query: UseQueryResult<T> = useQuery(options);
  const last = useRef<T>(undefined);
  // What is the same as before stays the same object, so that only what differs is drawn again.
  if (query.data !== undefined) last.current = replaceEqualDeep(last.current, query.data);
  return { data: last.current, error: query.error, busy: query.isFetching };
}

/** Who one is to the server. */
export const useRole = () => useQuery(q.session()).data?.role;

export const useCatalogue = () => useQuery(q.catalogue());

/** A change on the server, after which what begins with the keys is asked anew. */
function useChange<In, Out>(change: (input: In) => Promise<Out>, ...stale: (readonly unknown[])[]) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey }))),
  });
}

/** Chooses what is taught; every knot and answer may change with it. */
export function useTeach() {
  return useChange(
    ({ chosen, revision }: { chosen: Record<string, string>; revision: number }) =>
      unwrap(
        api.PUT("/api/v1/doctrines", {
          params: { header: { "If-Match": `"${revision}"` } },
          body: { chosen } as Schemas["Chosen"],
        }),
      ),
    q.taught(),
  );
}

/** Saves a rig: a new one, or another revision of the one it came from. */
export function useSaveRig() {
  return useChange(({ rig, over }: { rig: Rig; over?: { id: number; revision: number } }) => {
    const body = { rig } as SavedRig;
    return over
      ? unwrap(
          api.PUT("/api/v1/rigs/{id}", {
            params: { path: { id: over.id }, header: { "If-Match": `"${over.revision}"` } },
            body,
          }),
        )
      : unwrap(api.POST("/api/v1/rigs", { body }));
  }, q.rigs().queryKey);
}

export function useRemoveRig() {
  return useChange(
    (id: number) => unwrap(api.DELETE("/api/v1/rigs/{id}", { params: { path: { id } } })),
    q.rigs().queryKey,
  );
}

export function useAddLearner() {
  return useChange(
    (name: string) => unwrap(api.POST("/api/v1/learners", { body: { name } as Schemas["PracticeLearner"] })),
    q.learners().queryKey,
  );
}

/** An attempt as sent, with the key that makes it one record however often it is sent. */
export type NewAttempt = Pick<
  Schemas["PracticeAttempt"],
  "key" | "learner_id" | "knot" | "kind" | "outcome" | "fault" | "seconds" | "conditions"
> & { key: string };

export function useAddAttempt() {
  return useChange(
    (attempt: NewAttempt) =>
      unwrap(api.POST("/api/v1/attempts", { body: attempt as Schemas["PracticeAttempt"] })),
    q.attempts().queryKey.slice(0, -1),
    q.learners().queryKey,
  );
}

/** A change of what is kept, after which all that is kept is asked anew. */
export function useKept<In, Out>(change: (input: In) => Promise<Out>) {
  return useChange(change, q.kept());
}

/** Sets the load cell and what own pulls say; answers may change with it. */
export function useSetBench() {
  return useChange(
    (b: Schemas["BenchSettings"]) =>
      unwrap(
        api.PUT("/api/v1/bench/settings", {
          params: { header: { "If-Match": `"${b.revision}"` } },
          body: b,
        }),
      ),
    q.kept(),
    q.taught(),
  );
}

export type NewInspection = Pick<Schemas["PracticeInspection"], "key" | "rig" | "knot"> & {
  first: { name: string };
  second: { name: string };
};

/** Records that two looked over a rig that people depend on. */
export function useAddInspection() {
  return useChange(
    (i: NewInspection) =>
      unwrap(api.POST("/api/v1/inspections", { body: i as Schemas["PracticeInspection"] })),
    q.inspections().queryKey,
  );
}

export function useRemoveAttempt() {
  return useChange(
    (id: number) => unwrap(api.DELETE("/api/v1/attempts/{id}", { params: { path: { id } } })),
    q.attempts().queryKey.slice(0, -1),
    q.learners().queryKey,
  );
}

export function useRestoreAttempt() {
  return useChange(
    (id: number) => unwrap(api.POST("/api/v1/attempts/{id}/restoration", { params: { path: { id } } })),
    q.attempts().queryKey.slice(0, -1),
    q.learners().queryKey,
  );
}

/** An answer as a card to send. */
export const cardFile = (kind: "png" | "pdf", body: Schemas["CardQuery"]): Promise<Blob> =>
  unwrap(
    api.POST(kind === "png" ? "/api/v1/card.png" : "/api/v1/card.pdf", { body, parseAs: "blob" }) as Promise<{
      data?: Blob;
      error?: Schemas["Problem"];
    }>,
  );

/** Works out a load from figures as typed. */
export function workOutLoad(kind: LoadKind, query: Record<string, string | number | boolean>) {
  return unwrap(api.GET("/api/v1/loads/{kind}", { params: { path: { kind }, query } }));
}

/** Reads a rig from the text of a file; throws what is wrong with it. */
export async function readRig(text: string): Promise<Rig> {
  let rig: Rig;
  try {
    rig = JSON.parse(text) as Rig;
  } catch (e) {
    throw new Error(`This file is not a rig: ${e instanceof Error ? e.message : "it is not JSON"}.`);
  }
  return (await unwrap(api.POST("/api/v1/rig-checks", { body: rig }))).rig;
}

/** Reads a length (mm) or a force (kN) as typed; throws an ApiError that says what would be understood. */
export function readQuantity(kind: "length" | "force", text: string, bare: ReturnType<typeof bareUnit>) {
  return unwrap(api.GET("/api/v1/quantity", { params: { query: { kind, text, bare } } }));
}
