import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { SWRConfig } from "swr";
import { Refused } from "./api.ts";
import { router } from "./routes.tsx";
import "./style.css";

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <SWRConfig value={{ shouldRetryOnError: (error) => !(error instanceof Refused), errorRetryInterval: 2000 }}>
        <RouterProvider router={router} />
      </SWRConfig>
    </StrictMode>,
  );
}
