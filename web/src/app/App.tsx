import { Route, Routes, useLocation } from "react-router";
import { Board } from "../places/board/Board";
import { JobPage } from "../places/board/JobPage";
import { BenchPage } from "../places/bench/BenchPage";
import { ClosingBench } from "../places/bench/ClosingBench";
import { HoseBench } from "../places/bench/HoseBench";
import { CataloguePage } from "../places/catalogue/CataloguePage";
import { StandIns } from "../places/standins/StandIns";
import { LinePage } from "../workspace/LinePage";
import { LookupsPage } from "../places/lookups/LookupsPage";
import { StockPage } from "../places/stock/StockPage";
import { ToolsPage } from "../places/tools/ToolsPage";
import { Caught } from "../ui/Caught";
import { NotHere } from "../ui/NotHere";
import { PANELS } from "./panels";

export function App() {
  const { pathname } = useLocation();
  return (
    <Caught
      key={pathname.split("/").slice(0, 3).join("/")}
      instead={
        <NotHere title="This page failed" text="Something went wrong here. Everything that was saved is there." />
      }
    >
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
        <Route path="*" element={<NotHere text="There is nothing at this address." />} />
      </Routes>
    </Caught>
  );
}
