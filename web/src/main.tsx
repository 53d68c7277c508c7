import "./fonts.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { isProblem } from "./api/client";
import { ManualPage } from "./parts/ManualPage";
import { entries } from "./stops/registry";
import { Shelf } from "./stops/Shelf";
import { GlobalStyle } from "./theme";

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
              <Route path="/manuals/:id" element={<ManualPage />}>
                <Route index element={<Navigate to="listen" replace />} />
                {Object.entries(entries).map(([stop, { page: Page }]) => (
                  <Route key={stop} path={stop} element={<Page />} />
                ))}
              </Route>
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
