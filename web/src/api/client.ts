import createClient from "openapi-fetch";
import { unitsWanted } from "../ui/prefs";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Rig = Schemas["RigDocument"];
export type SavedRig = Schemas["RigSaved"];
export type Answer = Schemas["Answer"];
export type Choice = Schemas["Choice"];
export type Ruled = Schemas["Ruled"];
export type Hold = Schemas["Hold"];
export type Figure = Schemas["EvidenceFigure"];
export type Catalogue = Schemas["Catalogue"];
export type Task = Schemas["RigTask"];
export type KnotPage = Schemas["KnotPage"];
export type Attempt = Schemas["PracticeAttempt"];
export type Learner = Schemas["PracticeLearner"];
export type Problem = Schemas["Problem"];

export const api = createClient<paths>({
  baseUrl: location.origin,
  fetch: (request) => {
    const wanted = unitsWanted();
    if (wanted) request.headers.set("Units", wanted);
    return globalThis.fetch(request);
  },
});

/** What the server said was wrong, as an error that views can show field by field. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const silence: Problem = {
  type: "about:blank",
  title: "No answer",
  status: 0,
  detail: "Oarweed does not answer. Is it still running? What you typed is still here.",
};

/** The server did not answer at all. */
export const isSilence = (error: unknown): boolean => error instanceof ApiError && error.problem.status === 0;

/** Told to the window when the server no longer knows who one is. */
export const signedOut = "oarweed-signed-out";

/** The body of an answer, or an {@link ApiError}. */
export async function unwrap<T>(call: Promise<{ data?: T; error?: Problem }>): Promise<T> {
  let result: { data?: T; error?: Problem };
  try {
    result = await call;
  } catch (e) {
    if (e instanceof DOMException && e.name === "AbortError") throw e;
    throw new ApiError(silence);
  }
  // The session is over: whoever asks who one is asks anew.
  if (result.error?.status === 401) dispatchEvent(new Event(signedOut));
  if (result.error) throw new ApiError(result.error.detail ? result.error : silence);
  return result.data as T;
}

/** The record that stands in the way of a change, if that is what was wrong. */
export function conflictOf<T>(error: unknown): { kept: T; nameTaken: boolean } | undefined {
  if (!(error instanceof ApiError) || error.problem.status !== 409) return undefined;
  return { kept: error.problem.kept as T, nameTaken: error.problem.name_taken ?? false };
}
