import { StrictMode, startTransition } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { SWRConfig } from "swr";
import { Refused } from "#web/device/api.ts";
import { forgetOld } from "#web/device/kept.ts";
import { outbox } from "#web/device/outbox.ts";
import { arriveAt, installOnDevice } from "./renewal.ts";
import { openRouter } from "./routes.tsx";

/** Until what stands under the address is there. A router that was drawn before would miss that it came. */
function opened(router: ReturnType<typeof openRouter>): Promise<void> {
  if (router.state.initialized) return Promise.resolve();
  return new Promise((done) => {
    const end = router.subscribe(({ initialized }) => {
      if (!initialized) return;
      end();
      done();
    });
  });
}

/** Puts the application on the page. */
export async function start(): Promise<void> {
  const router = openRouter();
  installOnDevice();
  void arriveAt(router.state.location.pathname);
  router.subscribe((state) => void arriveAt(state.location.pathname));
  void outbox.ready.then(forgetOld);
  const root = document.getElementById("root");
  if (!root) return;
  await opened(router);
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
