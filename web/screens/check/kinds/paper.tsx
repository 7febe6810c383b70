import { lazy } from "react";
import type { KindOnScreen } from "./on-screen.ts";

const load = () => import("../paper-desk.tsx");

export const paper: KindOnScreen<"paper"> = {
  together: { Desk: lazy(() => load().then((module) => ({ default: module.PaperDesk }))), load },
};
