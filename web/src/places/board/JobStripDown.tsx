import { useStripDown } from "../../doc/useStripDown";
import { Section } from "../../ui/Section";
import { SharedLog } from "../../workspace/SharedLog";

/** The one strip-down of a job, folded until something of it is off. */
export function JobStripDown({ jobId }: { jobId: string }) {
  const log = useStripDown(jobId);
  const off = log.kept?.still_off ?? [];
  return (
    <Section
      title="Strip-down"
      hint={off.length > 0 ? `Still off: ${off.join(" · ")}.` : "Nothing that the lines share is off."}
      open={log.value.length > 0}
    >
      <SharedLog jobId={jobId} log={log} />
    </Section>
  );
}
