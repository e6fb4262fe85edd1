import { Route, Routes } from "react-router";
import { Board } from "../board/Board";
import { JobPage } from "../board/JobPage";
import { BenchPage } from "../bench/BenchPage";
import { CataloguePage } from "../catalogue/CataloguePage";
import { StandIns } from "../instruments/StandIns";
import { LinePage } from "../line/LinePage";
import { LookupsPage } from "../lookups/LookupsPage";
import { StockPage } from "../stock/StockPage";
import { ToolsPage } from "../tools/ToolsPage";
import { NotHere } from "./NotHere";

export function App() {
  return (
    <Routes>
      <Route path="/" element={<Board />} />
      <Route path="/jobs/:jobId" element={<JobPage />} />
      <Route path="/lines/:lineId" element={<LinePage />} />
      <Route path="/lines/:lineId/bench" element={<BenchPage />} />
      <Route path="/lines/:lineId/:stage" element={<LinePage />} />
      <Route path="/lookups" element={<LookupsPage />} />
      <Route path="/lookups/:place" element={<LookupsPage />} />
      <Route path="/catalogue" element={<CataloguePage />} />
      <Route path="/catalogue/:table" element={<CataloguePage />} />
      <Route path="/stock" element={<StockPage />} />
      <Route path="/tools" element={<ToolsPage />} />
      <Route path="/standins" element={<StandIns />} />
      <Route path="*" element={<NotHere text="There is nothing at this address." />} />
    </Routes>
  );
}
