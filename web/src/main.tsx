import "./fonts.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { isProblem } from "./api/client";
import { Bench } from "./parts/Bench";
import { Shelf } from "./stops/Shelf";
import { GlobalStyle } from "./theme";

const Listen = lazy(() => import("./stops/Listen"));
const Steps = lazy(() => import("./stops/Steps"));
const Chain = lazy(() => import("./stops/Chain"));
const Screws = lazy(() => import("./stops/Screws"));
const Fold = lazy(() => import("./stops/Fold"));
const Publish = lazy(() => import("./stops/Publish"));

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2_000,
      // A refusal stays a refusal; only a server that does not answer is asked again.
      retry: (count, error) => count < 3 && !(isProblem(error) && error.status < 500),
    },
  },
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <GlobalStyle />
        <BrowserRouter>
          <Suspense>
            <Routes>
              <Route path="/" element={<Shelf />} />
              <Route path="/manuals/:id" element={<Bench />}>
                <Route index element={<Navigate to="listen" replace />} />
                <Route path="listen" element={<Listen />} />
                <Route path="steps" element={<Steps />} />
                <Route path="chain" element={<Chain />} />
                <Route path="screws" element={<Screws />} />
                <Route path="fold" element={<Fold />} />
                <Route path="publish" element={<Publish />} />
              </Route>
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
