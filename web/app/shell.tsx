import {
  BookOpen,
  ChartNoAxesColumn,
  CircleHelp,
  ListOrdered,
  LogOut,
  Moon,
  Search,
  SlidersHorizontal,
  Sun,
  WholeWord,
} from "lucide-react";
import { type CSSProperties, lazy, Suspense, useEffect, useState } from "react";
import { Link, Navigate, NavLink, Outlet, useLocation, useNavigation } from "react-router";
import { getSchool, signOut } from "#contract";
import { nearDay, plural } from "#core/saying";
import { call, useAsk, wordsOfError } from "#web/device/api.ts";
import { useBothQuestion } from "#web/device/both.ts";
import { dayOfInstant, rememberZone, todayHere } from "#web/device/clock.ts";
import { Keys } from "#web/device/keys.tsx";
import { showLetters } from "#web/device/letters.ts";
import { useLocking } from "#web/device/lock.ts";
import { someoneElse, useMarkerFollows, useMe } from "#web/device/me.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { useAge } from "#web/device/pages.ts";
import { useLocked, useMarker, useTheme } from "#web/device/settings.ts";
import { Leaving } from "#web/parts/leaving.tsx";
import { Toasts, toast } from "#web/parts/toast.tsx";
import { Arrival } from "./arrive.tsx";
import { usePlaces } from "./places.ts";

const Palette = lazy(() => import("./palette.tsx").then((module) => ({ default: module.Palette })));

const BothSheet = lazy(() => import("./both.tsx").then((module) => ({ default: module.BothSheet })));

const Door = lazy(() => import("#web/screens/door/sign-in.tsx").then((module) => ({ default: module.Screen })));

const Tray = lazy(() => import("./tray.tsx").then((module) => ({ default: module.Tray })));

/** Says how old what stands on the screen is, while the server cannot be reached. */
function Age() {
  const since = useAge();
  if (since === null) return <p role="status" className="sr-only" />;
  const at = new Date(since).toISOString();
  return (
    <p
      role="status"
      className="no-print pointer-events-none fixed right-3 bottom-3 z-30 rounded-md border border-damson bg-damson-pale px-3 py-1.5 text-sm"
    >
      No connection. What stands here is of {nearDay(dayOfInstant(at), todayHere())},{" "}
      {new Date(since).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}.
    </p>
  );
}

const MY_SIGN_IN = "/settings/mine";

/** Pixels from one place of the stem to the next. */
const STEP = 37.2;

/** The frame of the teacher's face: the loop as a stem with its places, and the place itself. */
export function Shell() {
  const [paletteOpen, setPaletteOpen] = useState(false);
  const [paletteWanted, setPaletteWanted] = useState(false);
  const { refused } = useOutbox();
  const question = useBothQuestion();
  const { data: door } = useMe();
  const { places, besides } = usePlaces();
  const { pathname } = useLocation();
  const isFetching = useNavigation().state === "loading";
  useMarkerFollows();
  const [locked] = useLocked();
  useLocking(door?.me?.way === "signed-in" ? door.device?.lockMinutes : undefined);
  const openPalette = () => {
    if (door?.me?.role === "observer") return;
    setPaletteWanted(true);
    setPaletteOpen(true);
  };
  // Where nothing is real one comes in as someone first, so that it looks as it does to them.
  if (locked || (door && (door.me === null || (door.demo && door.me.way === "machine"))))
    return (
      <Suspense fallback={null}>
        <Door />
      </Suspense>
    );
  // A lead whom the school wants a second factor of has no other place before it is set up.
  const isShut = door?.me?.lacksSecond ?? false;
  if (isShut && pathname !== MY_SIGN_IN) return <Navigate to={MY_SIGN_IN} replace />;
  if (door?.me?.role === "observer" && pathname === "/") return <Navigate to="/numbers" replace />;
  return (
    <Leaving>
      <Keys places={isShut ? [] : [...places, ...besides]} onPalette={openPalette}>
        <a
          href="#place"
          className="no-print sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50 focus:bg-sheet focus:p-2"
        >
          Skip to the place
        </a>
        <div className="flex min-h-screen flex-col lg:flex-row">
          {!isShut && <Rail onPalette={openPalette} />}
          <main id="place" aria-busy={isFetching} className="flex min-w-0 flex-1 flex-col">
            {refused.length > 0 && (
              <Suspense fallback={null}>
                <Tray />
              </Suspense>
            )}
            {question && (
              <Suspense fallback={null}>
                <BothSheet />
              </Suspense>
            )}
            {isFetching && (
              <div aria-hidden className="no-print fixed inset-x-0 top-0 z-50 h-1 animate-later bg-leaf" />
            )}
            <Outlet />
          </main>
        </div>
        <Arrival />
        <Age />
        {paletteWanted && (
          <Suspense fallback={null}>
            <Palette open={paletteOpen} onClose={() => setPaletteOpen(false)} />
          </Suspense>
        )}
        <Toasts />
      </Keys>
    </Leaving>
  );
}

function Rail({ onPalette }: { onPalette: () => void }) {
  const { places, besides } = usePlaces();
  const { data: door } = useMe();
  // An observer has nothing of the school but numbers.
  const school = useAsk(getSchool, door?.me?.role === "observer" ? null : {});
  const erased = school.data?.erased;
  useEffect(() => {
    if (erased === undefined) return;
    // What fails, without a line, is done at the next contact.
    void import("#web/device/erased.ts").then(({ dropErased }) => dropErased(erased)).catch(() => undefined);
  }, [erased]);
  const zone = school.data?.timeZone;
  useEffect(() => {
    if (zone) rememberZone(zone);
  }, [zone]);
  const letters = school.data?.checks.letterShapes;
  useEffect(() => {
    if (letters) showLetters(letters);
  }, [letters]);
  // What waits in each place, shown beside its name.
  const { checks = 0, sessions = 0 } = school.data?.waiting ?? {};
  const waiting: Record<string, number> = { "/check": checks, "/sessions": sessions };
  const link = ({ isActive }: { isActive: boolean }) =>
    `group relative flex items-center gap-2 rounded-md px-1.5 lg:px-2.5 py-1.5 whitespace-nowrap ${isActive ? "bg-leaf-pale font-semibold" : "hover:bg-leaf-pale/60"}`;
  return (
    <aside className="no-print border-line bg-sheet max-lg:border-b lg:sticky lg:top-0 lg:flex lg:h-screen lg:w-[196px] lg:flex-none lg:flex-col lg:border-r">
      <div className="flex items-center gap-2 px-4 pt-3 pb-1 lg:pt-4">
        <img src="/sapling.svg" alt="" width={24} height={24} />
        <div className="min-w-0 leading-tight max-lg:max-w-[48vw]">
          <p className="font-semibold">Keen Sapling</p>
          <p className="truncate text-sm text-soft">{school.data?.name || door?.school.name || "Your school"}</p>
        </div>
      </div>
      <nav aria-label="Places" className="overflow-x-auto px-2 py-2 lg:flex-1">
        <ol
          style={{ "--stem": `${(places.length - 1) * STEP}px` } as CSSProperties}
          className="relative flex gap-1 lg:flex-col lg:before:absolute lg:before:top-4 lg:before:h-(--stem) lg:before:left-[17px] lg:before:w-px lg:before:bg-leaf-mid"
        >
          {places.map((place) => (
            <li key={place.path}>
              <NavLink to={place.path} end={place.path === "/"} className={link}>
                {({ isActive }) => (
                  <>
                    <span
                      aria-hidden
                      className={`z-10 hidden size-3.5 flex-none rounded-[0_70%_0_70%] border-2 border-leaf lg:block ${isActive ? "bg-leaf" : "bg-sheet"}`}
                    />
                    <span className="flex-1">{place.name}</span>
                    {(waiting[place.path] ?? 0) > 0 && (
                      <span
                        role="img"
                        className="rounded-full bg-damson px-1.5 text-xs font-semibold text-on-leaf"
                        aria-label={`${waiting[place.path]} waiting`}
                      >
                        {waiting[place.path]}
                      </span>
                    )}
                  </>
                )}
              </NavLink>
            </li>
          ))}
          {besides.map((place, at) => (
            <li key={place.path} className={at === 0 ? "lg:mt-5" : ""}>
              <NavLink to={place.path} className={link}>
                <span aria-hidden className="z-10 hidden bg-sheet text-soft lg:block">
                  <BesideIcon path={place.path} />
                </span>
                {place.name}
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
      <RailFoot onPalette={onPalette} />
    </aside>
  );
}

function RailFoot({ onPalette }: { onPalette: () => void }) {
  const { dark, toggle } = useTheme();
  const [marker, setMarker] = useMarker();
  const me = useMe().data?.me;
  const { waiting, lineDown } = useOutbox();
  return (
    <div className="flex items-center gap-2 px-3 pb-3 max-lg:absolute max-lg:right-2 max-lg:top-2 lg:flex-col lg:items-stretch">
      {waiting.length > 0 && (
        <p role="status" className="rounded-md bg-damson-pale px-2 py-1 text-sm">
          {plural(waiting.length, "mark")} on this device
          {lineDown ? ", waiting for a connection" : ", being sent"}
        </p>
      )}
      {me?.way === "signed-in" ? (
        <div className="flex items-center gap-1.5">
          <Link
            to="/settings/mine"
            className="min-w-0 flex-1 truncate rounded px-1 py-1 text-sm hover:bg-leaf-pale max-sm:hidden"
          >
            <span className="font-semibold">{me.name}</span> <span className="text-soft">{me.role}</span>
          </Link>
          <button
            type="button"
            onClick={() =>
              void call(signOut, {}).then(
                () => someoneElse(),
                (error) => toast.error(wordsOfError(error)),
              )
            }
            aria-label="Sign out"
            className="rounded border border-line px-2 py-1 text-soft hover:border-soft"
          >
            <LogOut size={15} aria-hidden />
          </button>
        </div>
      ) : (
        <label className="flex items-center gap-2 text-sm text-soft max-sm:hidden lg:block">
          <span className="max-lg:sr-only">Marks are by</span>
          <input
            aria-label="Marks are by"
            value={marker}
            maxLength={60}
            onChange={(event) => setMarker(event.target.value)}
            onBlur={() => marker.trim() === "" && setMarker("Teacher")}
            className="w-32 rounded border border-line bg-paper px-2 py-1 text-ink lg:w-full"
          />
        </label>
      )}
      <div className="flex gap-1.5">
        <button
          type="button"
          hidden={me?.role === "observer"}
          onClick={onPalette}
          className="flex flex-1 items-center gap-1.5 rounded border border-line px-2 py-1 text-sm text-soft hover:border-soft"
        >
          <Search size={14} aria-hidden /> Find <kbd className="ml-auto text-xs max-lg:hidden">Ctrl K</kbd>
        </button>
        <button
          type="button"
          onClick={toggle}
          aria-label={dark ? "Light" : "Dark"}
          className="rounded border border-line px-2 py-1 text-soft hover:border-soft"
        >
          {dark ? <Sun size={15} aria-hidden /> : <Moon size={15} aria-hidden />}
        </button>
      </div>
    </div>
  );
}

function BesideIcon({ path }: { path: string }) {
  if (path === "/help") return <CircleHelp size={15} />;
  if (path === "/numbers") return <ChartNoAxesColumn size={15} />;
  if (path === "/texts") return <BookOpen size={15} />;
  if (path === "/settings") return <SlidersHorizontal size={15} />;
  return path === "/words" ? <WholeWord size={15} /> : <ListOrdered size={15} />;
}
