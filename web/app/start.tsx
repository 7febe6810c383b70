import { StrictMode, startTransition } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { SWRConfig } from "swr";
import { Refused } from "#web/device/api.ts";
import { forgetOld } from "#web/device/kept.ts";
import { outbox } from "#web/device/outbox.ts";
import { arriveAt, installOnDevice } from "./renewal.ts";
import { openRouter } from "./routes.tsx";

/** Puts the application on the page. */
export function start(): void {
  const router = openRouter();
  installOnDevice();
  void arriveAt(router.state.location.pathname);
  router.subscribe((state) => void arriveAt(state.location.pathname));
  void outbox.ready.then(forgetOld);
  const root = document.getElementById("root");
  if (!root) return;
  const app = createRoot(root);
  // As a transition the first page is drawn in slices too.
  startTransition(() =>
    app.render(
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
    ),
  );
}
