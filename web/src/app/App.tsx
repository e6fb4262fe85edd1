import Button from "@mui/material/Button";
import { Route, Routes, useLocation } from "react-router";
import { Caught } from "../ui/Caught";
import { fetched } from "../ui/fetched";
import { NotHere } from "../ui/NotHere";

// each place is fetched when it is first gone to
const Board = fetched(() => import("../places/board/Board"));
const JobPage = fetched(() => import("../places/board/JobPage"));
const BenchPage = fetched(() => import("../places/bench/BenchPage"));
const ClosingBench = fetched(() => import("../places/bench/ClosingBench"));
const HoseBench = fetched(() => import("../places/bench/HoseBench"));
const CataloguePage = fetched(() => import("../places/catalogue/CataloguePage"));
const StandIns = fetched(() => import("../places/standins/StandIns"));
const LineAt = fetched(() => import("./LineAt"));
const LookupsPage = fetched(() => import("../places/lookups/LookupsPage"));
const NoticesPage = fetched(() => import("../places/notices/NoticesPage"));
const StockPage = fetched(() => import("../places/stock/StockPage"));
const ToolsPage = fetched(() => import("../places/tools/ToolsPage"));

export function App() {
  const { pathname } = useLocation();
  return (
    <Caught
      key={pathname.split("/").slice(0, 3).join("/")}
      instead={
        <NotHere title="This page failed" text="Something went wrong here. Everything that was saved is there.">
          <Button onClick={() => window.location.reload()}>Show it again</Button>
        </NotHere>
      }
    >
      <Routes>
        <Route path="/" element={<Board />} />
        <Route path="/jobs/:jobId/:part?" element={<JobPage />} />
        <Route path="/lines/:lineId" element={<LineAt />} />
        <Route path="/lines/:lineId/bench" element={<BenchPage />} />
        <Route path="/lines/:lineId/closing/:stage" element={<ClosingBench />} />
        <Route path="/lines/:lineId/hose/:spanId" element={<HoseBench />} />
        <Route path="/lines/:lineId/:stage" element={<LineAt />} />
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
    </Caught>
  );
}
