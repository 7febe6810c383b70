import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { SWRConfig } from "swr";
import { Refused } from "./api.ts";
import { forgetOld } from "./kept.ts";
import { outbox } from "./outbox.ts";
import { arriveAt, installOnDevice } from "./renewal.ts";
import { router } from "./routes.tsx";
import "./style.css";

installOnDevice();
void arriveAt(router.state.location.pathname);
router.subscribe((state) => void arriveAt(state.location.pathname));
void outbox.ready.then(forgetOld);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <SWRConfig
        value={{
          shouldRetryOnError: (error) => !(error instanceof Refused),
          errorRetryInterval: 2000,
        }}
      >
        <RouterProvider router={router} />
      </SWRConfig>
    </StrictMode>,
  );
}
