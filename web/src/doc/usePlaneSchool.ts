import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, sentence, take } from "../api/client";
import { useNotice } from "../ui/notice";
import type { PlaneSchool } from "./planes";
import { useCatalogue } from "./useCatalogue";

/** How this shop reads planes, and saying so once. */
export function usePlaneSchool(): { school: PlaneSchool; say: (school: PlaneSchool) => Promise<boolean> } {
  const catalogue = useCatalogue();
  const client = useQueryClient();
  const notice = useNotice();
  const say = useCallback(
    async (school: PlaneSchool) => {
      try {
        await take(api.PUT("/api/preferences", { body: { planes: school } }));
        await client.invalidateQueries({ queryKey: ["catalogue"] });
        return true;
      } catch (error) {
        notice({ text: sentence(error) });
        return false;
      }
    },
    [client, notice],
  );
  return { school: (catalogue?.preferences["planes"] ?? "") as PlaneSchool, say };
}
