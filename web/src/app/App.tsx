import { lazy, Suspense, useEffect } from "react";
import { Route, Routes, useLocation } from "react-router";
import { Caught } from "../ui/Caught";
import { NotHere } from "../ui/NotHere";
import { fetchStages, PANELS } from "./panels";

// each place is fetched when it is first gone to
const Board = lazy(() => import("../places/board/Board"));
const JobPage = lazy(() => import("../places/board/JobPage"));
const BenchPage = lazy(() => import("../places/bench/BenchPage"));
const ClosingBench = lazy(() => import("../places/bench/ClosingBench"));
const HoseBench = lazy(() => import("../places/bench/HoseBench"));
const CataloguePage = lazy(() => import("../places/catalogue/CataloguePage"));
const StandIns = lazy(() => import("../places/standins/StandIns"));
const LinePage = lazy(() => import("../workspace/LinePage"));
const LookupsPage = lazy(() => import("../places/lookups/LookupsPage"));
const NoticesPage = lazy(() => import("../places/notices/NoticesPage"));
const StockPage = lazy(() => import("../places/stock/StockPage"));
const ToolsPage = lazy(() => import("../places/tools/ToolsPage"));

export function App() {
  const { pathname } = useLocation();
  const atALine = pathname.startsWith("/lines/");
  useEffect(() => {
    if (atALine) fetchStages();
  }, [atALine]);
  return (
    <Caught
      key={pathname.split("/").slice(0, 3).join("/")}
      instead={
        <NotHere title="This page failed" text="Something went wrong here. Everything that was saved is there." />
      }
    >
      <Suspense fallback={null}>
        <Routes>
          <Route path="/" element={<Board />} />
          <Route path="/jobs/:jobId" element={<JobPage />} />
          <Route path="/lines/:lineId" element={<LinePage panels={PANELS} />} />
          <Route path="/lines/:lineId/bench" element={<BenchPage />} />
          <Route path="/lines/:lineId/closing/:stage" element={<ClosingBench />} />
          <Route path="/lines/:lineId/hose/:spanId" element={<HoseBench />} />
          <Route path="/lines/:lineId/:stage" element={<LinePage panels={PANELS} />} />
          <Route path="/lookups" element={<LookupsPage />} />
          <Route path="/lookups/:place" element={<LookupsPage />} />
          <Route path="/catalogue" element={<CataloguePage />} />
          <Route path="/catalogue/:table" element={<CataloguePage />} />
          <Route path="/stock" element={<StockPage />} />
          <Route path="/tools" element={<ToolsPage />} />
          <Route path="/standins" element={<StandIns />} />
          <Route path="/notices" element={<NoticesPage />} />
          <Route path="*" element={<NotHere text="There is nothing at this address." />} />
        </Routes>
      </Suspense>
    </Caught>
  );
}
