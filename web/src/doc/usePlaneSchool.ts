import { useCallback } from "react";
import { sentence } from "../api/client";
import { useNotice } from "../ui/notice";
import type { PlaneSchool } from "./planes";
import { useCatalogue } from "./useCatalogue";
import { useWays } from "./useWays";

/** How this shop reads planes, and saying so once. */
export function usePlaneSchool(): { school: PlaneSchool; say: (school: PlaneSchool) => Promise<boolean> } {
  const catalogue = useCatalogue();
  const keep = useWays();
  const notice = useNotice();
  const say = useCallback(
    async (school: PlaneSchool) => {
      try {
        await keep({ planes: school });
        return true;
      } catch (error) {
        notice({ text: sentence(error) });
        return false;
      }
    },
    [keep, notice],
  );
  return { school: (catalogue?.preferences["planes"] ?? "") as PlaneSchool, say };
}
