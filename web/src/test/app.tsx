import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import { vi } from "vitest";
import { system } from "../ui/theme";

type Call = { method: string; path: string; query: URLSearchParams; body: unknown };
type Answer = unknown | ((call: Call) => unknown);

/** What the server would answer, by method and path; what it was asked is kept. */
export function fakeServer(answers: Record<string, Answer>) {
  const calls: Call[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const url = new URL(request.url);
    const text = request.method === "GET" ? "" : await request.text();
    const call = {
      method: request.method,
      path: url.pathname,
      query: url.searchParams,
      body: text ? JSON.parse(text) : undefined,
    };
    calls.push(call);
    const found = answers[`${call.method} ${call.path}`];
    const body = typeof found === "function" ? (found as (c: Call) => unknown)(call) : found;
    if (body === undefined) {
      return json(404, { title: "Not Found", status: 404, detail: `nothing at ${call.path}` });
    }
    if (typeof body === "string") return new Response(body, { headers: { "Content-Type": "image/svg+xml" } });
    const status = (body as { status?: number }).status;
    return json(typeof status === "number" ? status : 200, body);
  });
  return calls;
}

const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

/** Shows one view at an address. */
export function show(view: ReactNode, path = "/", route = "*") {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={[path]}>
          <Routes>
            <Route path={route} element={view} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
}
