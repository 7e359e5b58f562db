import "@fontsource-variable/schibsted-grotesk";
import "@fontsource-variable/sometype-mono";
import "./styles.css";
import "./i18n";
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { ApiError } from "./api/client";
import { App } from "./App";
import { notice } from "./shared/notice";

/** What no screen says by itself is said at its foot; signing in again is asked for elsewhere. */
function say(error: unknown, meta: Record<string, unknown> | undefined) {
  const known = error instanceof ApiError ? error : null;
  if (!meta?.shown && known?.status !== 401)
    notice.say(error instanceof Error ? error.message : "");
}

const client = new QueryClient({
  queryCache: new QueryCache({ onError: (error, query) => say(error, query.meta) }),
  mutationCache: new MutationCache({
    onError: (error, _given, _context, mutation) => say(error, mutation.meta),
    onSuccess: () => notice.say(""),
  }),
  defaultOptions: {
    queries: {
      refetchOnWindowFocus: false,
      retry: (failures, error) =>
        failures < 1 && !(error instanceof ApiError && error.status >= 400 && error.status < 500),
    },
  },
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
