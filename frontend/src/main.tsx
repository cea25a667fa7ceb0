import "./main.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";

import { App } from "./app/App";
import { fetchScreen } from "./app/screens";
import { useOwn } from "./app/own";
import { applyTheme, themeOf } from "./app/theme";

applyTheme(themeOf(useOwn.getState().values["show.theme"]));

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true, staleTime: 2_000 } },
});
const root = document.getElementById("root");
if (!root) throw new Error("the page has no #root");

function show(at: HTMLElement): void {
  createRoot(at).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}

// Not awaited: the code of a screen waits for this module.
void fetchScreen(window.location.pathname).then(() => show(root));
