import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode, Suspense, lazy } from "react";
import { createRoot } from "react-dom/client";
import { Route, Switch, useLocation } from "wouter";
import { Shelf } from "./shelf/shelf";
import { Editor } from "./editor/editor";
import { api, ask } from "./api/client";
import { lensOf } from "./lens/lenses";
import { setCurrency, useCurrency } from "./lib/format";
import { startTheme } from "./lib/theme";
import { askKeptAgain, keptAs, pageKept } from "./lib/touch";
import { StartPage } from "./start/start";
import { WaitingPricesBar } from "./prices/waiting-bar";
import { Guard } from "./ui/guard";
import { TouchBar } from "./ui/touch-bar";
import { Loading } from "./ui/ui";
import "./style/base.css";
import "./style/controls.css";
import "./style/parts.css";
import "./style/shelf.css";
import "./style/sheets.css";
import "./style/prices.css";
import "./style/saw.css";
import "./style/tape.css";
import "./style/editor.css";
import "./style/build.css";
import "./style/frame.css";
import "./style/paper.css";

const BuildSheet = lazy(() => import("./sheet/build-sheet"));
const LabelsPage = lazy(() => import("./sheet/labels"));
const TogetherPage = lazy(() => import("./shelf/together"));
const TogetherLabels = lazy(() => import("./shelf/together-labels"));
const RackPage = lazy(() => import("./rack/rack"));
const PricesPage = lazy(() => import("./prices/prices"));
const CuttingPage = lazy(() => import("./cutting/cutting"));

/** Has pages kept; where the server does not answer just now, as soon as it does. */
function keepPages() {
  void navigator.serviceWorker.register("/sw.js").catch(() => setTimeout(keepPages, 10_000));
}

startTheme();
// where the browser allows it a page that was seen opens without the network, too
if (import.meta.env.PROD && window.isSecureContext && "serviceWorker" in navigator) addEventListener("load", keepPages);
const client = new QueryClient({
  defaultOptions: {
    queries: { refetchOnWindowFocus: false, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});
// what the first page read before its worker was there is read once more, for the worker to keep: what is under way then ends first
if (window.isSecureContext && "serviceWorker" in navigator && !navigator.serviceWorker.controller)
  navigator.serviceWorker.addEventListener("controllerchange", () => void client.refetchQueries().then(() => client.refetchQueries()), {
    once: true,
  });

// one press, one act: a key that is held presses a button once
addEventListener(
  "keydown",
  (e) => {
    if (
      e.repeat &&
      (e.key === "Enter" || e.key === " ") &&
      (e.target as HTMLElement).closest("button, summary, a, [role=checkbox], input[type=checkbox]")
    )
      e.preventDefault();
  },
  true,
);

// a page that was kept says so until the server has been heard; what was read for it is read again
if (pageKept() > 0) keptAs("page", pageKept());
setInterval(() => void askKeptAgain(() => client.refetchQueries()), 5000);

// amounts are in the shop's currency: what the browser kept of it serves until the server says it
void ask(api.GET("/api/about"))
  .then((about) => setCurrency(about.currency))
  .catch(() => undefined);

function App() {
  useCurrency(); // every page is drawn again when it changes
  const [at] = useLocation();
  return (
    <StrictMode>
      <QueryClientProvider client={client}>
        <TouchBar />
        <WaitingPricesBar />
        <Guard what="This page" of={[at]} page>
          <Switch>
            <Route path="/">
              <Shelf />
            </Route>
            <Route path="/new">
              <StartPage />
            </Route>
            <Route path="/cut">
              <Suspense fallback={<Loading what="the page" />}>
                <CuttingPage />
              </Suspense>
            </Route>
            <Route path="/prices">
              <Suspense fallback={<Loading what="the prices" />}>
                <PricesPage />
              </Suspense>
            </Route>
            <Route path="/rack">
              <Suspense fallback={<Loading what="the rack" />}>
                <RackPage />
              </Suspense>
            </Route>
            <Route path="/together">
              <Suspense fallback={<Loading what="the lists" />}>
                <TogetherPage />
              </Suspense>
            </Route>
            <Route path="/together/labels">
              <Suspense fallback={<Loading what="the labels" />}>
                <TogetherLabels />
              </Suspense>
            </Route>
            <Route path="/p/:id/sheet">
              {(p) => (
                <Suspense fallback={<Loading what="the sheet" />}>
                  <BuildSheet key={p.id} id={p.id} />
                </Suspense>
              )}
            </Route>
            <Route path="/p/:id/labels">
              {(p) => (
                <Suspense fallback={<Loading what="the labels" />}>
                  <LabelsPage key={p.id} id={p.id} />
                </Suspense>
              )}
            </Route>
            <Route path="/p/:id/:lens?">{(p) => <Editor key={p.id} id={p.id} lens={lensOf(p.lens)} />}</Route>
            <Route>
              <Shelf lost />
            </Route>
          </Switch>
        </Guard>
      </QueryClientProvider>
    </StrictMode>
  );
}

const root = document.getElementById("root");
if (root) createRoot(root).render(<App />);
