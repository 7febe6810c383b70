import { useEffect } from "react";
import { useRouteError } from "react-router";
import { Button } from "#web/parts/button.tsx";

const RELOADED = "keen-reloaded";
const A_MOMENT = 20_000;

/** True when a part of the application could not be fetched: most likely a newer one was built meanwhile. */
function isOldPage(error: unknown): boolean {
  return error instanceof Error && /dynamically imported module|importing a module script/i.test(error.message);
}

/**
 * What stands there when a place could not be shown. A page that is older than the server's application
 * loads anew by itself, once.
 */
export function Broken() {
  const error = useRouteError();
  const old = isOldPage(error);
  useEffect(() => {
    if (!old || Date.now() - Number(sessionStorage.getItem(RELOADED)) < A_MOMENT) return;
    sessionStorage.setItem(RELOADED, String(Date.now()));
    location.reload();
  }, [old]);
  return (
    <main className="mx-auto max-w-xl px-5 py-16">
      <h1 className="mb-2">This place could not be shown</h1>
      <p className="mb-4">
        {old
          ? "The tool was renewed, or the server cannot be reached. What you marked is kept on this device."
          : "Something went wrong in this page. What you marked is kept."}{" "}
        Load the page again; if it stays, go to Today.
      </p>
      <div className="flex gap-2">
        <Button shape="main" onClick={() => location.reload()}>
          Load again
        </Button>
        <Button onClick={() => location.assign("/")}>Go to Today</Button>
      </div>
    </main>
  );
}
