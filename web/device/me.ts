import { useEffect } from "react";
import { mutate } from "swr";
import { addressOf, isAtLeast, type Role, whoAsks } from "#contract";
import { useAsk } from "./api.ts";
import { forgetAnswers } from "./pages.ts";
import { useMarker } from "./settings.ts";

const address = addressOf(whoAsks, {});

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

/** After someone came in or went: nothing that the one before read stays in memory or on the device. */
export async function someoneElse(): Promise<void> {
  await forgetAnswers().catch(() => undefined);
  await mutate((key) => typeof key === "string" && key !== address, undefined, { revalidate: false });
  await mutate(address);
}
