import type { JobSummary } from "../../api/types";

const SOON_MS = 1000;

/** While a line is being worked out in the background its job is asked for again. */
export const askAgain = (jobs: readonly JobSummary[]): number | false =>
  jobs.some((job) => job.lines.some((line) => !line.reckoned)) ? SOON_MS : false;
