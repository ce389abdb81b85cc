import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Rig = Schemas["RigDocument"];
export type Answer = Schemas["ChooseAnswer"];
export type Choice = Schemas["ChooseChoice"];
export type Ruled = Schemas["ChooseRuled"];
export type Hold = Schemas["ChooseHold"];
export type Figure = Schemas["EvidenceFigure"];
export type Catalogue = Schemas["Catalogue"];
export type Task = Schemas["RigTask"];
export type KnotPage = Schemas["KnotPage"];
export type Attempt = Schemas["StoreAttempt"];
export type Problem = Schemas["Problem"];

export const api = createClient<paths>({
  baseUrl: location.origin,
  fetch: (request) => globalThis.fetch(request),
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

/** The body of an answer, or an {@link ApiError}. */
export async function unwrap<T>(call: Promise<{ data?: T; error?: Problem }>): Promise<T> {
  let result: { data?: T; error?: Problem };
  try {
    result = await call;
  } catch {
    throw new ApiError(silence);
  }
  if (result.error) throw new ApiError(result.error.detail ? result.error : silence);
  return result.data as T;
}
