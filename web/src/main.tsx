import "@fontsource/barlow/400.css";
import "@fontsource/barlow/500.css";
import "@fontsource/barlow/600.css";
import "@fontsource/barlow-condensed/500.css";
import "@fontsource/barlow-condensed/600.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./app/App";
import { NoticeProvider } from "./ui/notice";
import { InstrumentsProvider } from "./instruments/useInstruments";
import { ModeProvider } from "./theme/mode";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: true } },
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <ModeProvider>
          <NoticeProvider>
            <BrowserRouter>
              <InstrumentsProvider>
                <App />
              </InstrumentsProvider>
            </BrowserRouter>
          </NoticeProvider>
        </ModeProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
