import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Route, Switch } from "wouter";
import { Workbench } from "./bench/workbench";
import { CuttingPage } from "./cutting/cutting";
import { startTheme } from "./lib/theme";
import { Shelf } from "./shelf/shelf";
import { StartPage } from "./start/start";
import "./style.css";

startTheme();
const client = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false, networkMode: "always" }, mutations: { networkMode: "always" } } });

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <Switch>
          <Route path="/">
            <Shelf />
          </Route>
          <Route path="/new">
            <StartPage />
          </Route>
          <Route path="/cut">
            <CuttingPage />
          </Route>
          <Route path="/p/:id">{(p) => <Workbench key={p.id} id={p.id} />}</Route>
          <Route>
            <Shelf lost />
          </Route>
        </Switch>
      </QueryClientProvider>
    </StrictMode>,
  );
