import { whenOpened } from "./whenOpened";

/** Ask for a name. */
export const NameDialog = whenOpened(() => import("./NameForm"));
