import { useEffect } from "react";
import { isAtLeast, type Role, whoAsks } from "#contract";
import { useAsk } from "./api.ts";
import { forgetForGood } from "./pages.ts";
import { useMarker } from "./settings.ts";

/** Who is signed in here, and how the school is entered; undefined until it is known. */
export function useMe() {
  return useAsk(whoAsks, {}, { revalidateOnFocus: true });
}

/** Whether whoever is here has at least this role; true until it is known, so that nothing goes that was there. */
export function useIsAtLeast(role: Role): boolean {
  const { data } = useMe();
  return !data?.me || isAtLeast(data.me.role, role);
}

/** Marks made here carry the name of who is signed in. */
export function useMarkerFollows(): void {
  const { data } = useMe();
  const [marker, setMarker] = useMarker();
  const name = data?.me?.way === "signed-in" ? data.me.name : undefined;
  useEffect(() => {
    if (name && name !== marker) setMarker(name);
  }, [name, marker, setMarker]);
}

/**
 * After someone came in or went: nothing that the one before read stays on the device, and the page begins anew, so that
 * nothing of it stays in memory either.
 * @param path where it begins; the same place without one
 */
export async function someoneElse(path?: string): Promise<void> {
  await forgetForGood().catch(() => undefined);
  if (path === undefined) location.reload();
  else location.replace(path);
}
