import "@fontsource/atkinson-hyperlegible/latin-400.css";
import "@fontsource/atkinson-hyperlegible/latin-700.css";
import "@fontsource/fraunces/latin-600.css";
import "./ui/theme.css";
import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Gate } from "./access/gate";
import { isSilence } from "./api/client";
import { App } from "./app";
import { system } from "./ui/theme";

const client = new QueryClient({
  defaultOptions: {
    queries: {
      refetchOnWindowFocus: false,
      // Asked whether or not the browser thinks that there is a net: the server may be this machine.
      networkMode: "always",
      // A server that does not answer is asked again until it does: nobody has to reload.
      refetchInterval: (query) => (isSilence(query.state.error) ? 3000 : false),
    },
    mutations: { networkMode: "always" },
  },
});

createRoot(document.getElementById("root") as HTMLElement).render(
  <ChakraProvider value={system}>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Gate>
          <App />
        </Gate>
      </BrowserRouter>
    </QueryClientProvider>
  </ChakraProvider>,
);
