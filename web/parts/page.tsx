import { type ReactNode, useEffect } from "react";
import { useLocation } from "react-router";
import type { Problem } from "#contract";
import { ButtonLink } from "./button.tsx";

interface PageWanted {
  /** What the browser's title says: the place, never a child. */
  readonly place: string;
  readonly title: ReactNode;
  /** One line under the title. */
  readonly about?: ReactNode;
  readonly actions?: ReactNode;
  /** On paper the title stands at the head; without it what prints has a head of its own. */
  readonly printsTitle?: boolean;
  readonly children: ReactNode;
}

/** The head and body of a place. */
export function Page({ place, title, about, actions, printsTitle = false, children }: PageWanted) {
  usePlaceTitle(place);
  return (
    <div className="mx-auto w-full max-w-[1180px] px-5 py-5">
      <header
        className={`${printsTitle ? "" : "no-print"} mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-2`}
      >
        <div className="min-w-0 flex-1 basis-80">
          <h1>{title}</h1>
          {about && <p className="mt-0.5 text-soft">{about}</p>}
        </div>
        {actions && <div className="no-print flex flex-wrap items-center gap-2">{actions}</div>}
      </header>
      {children}
    </div>
  );
}

export function usePlaceTitle(place: string): void {
  useEffect(() => {
    document.title = `${place} · Keen Sapling`;
  }, [place]);
}

export function Panel({
  title,
  actions,
  children,
  className = "",
}: {
  title?: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section className={`rounded-lg border border-line bg-sheet ${className}`}>
      {title && (
        <header className="flex items-center justify-between gap-3 border-b border-line px-4 py-2.5">
          <h2>{title}</h2>
          {actions}
        </header>
      )}
      <div className="px-4 py-3">{children}</div>
    </section>
  );
}

/** What a place says when there is nothing in it yet: what it is for, and the one action that fills it. */
export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="rounded-lg border border-dashed border-line px-6 py-10 text-center">
      <p className="mx-auto mb-4 max-w-prose text-soft">{children}</p>
      {action}
    </div>
  );
}

/** Grey bars of about the size of what will come. */
export function Waiting({ rows = 6 }: { rows?: number }) {
  return (
    <div role="status" aria-label="Loading" className="flex flex-col gap-2">
      {Array.from({ length: rows }, (_, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the bars never change their order
        <div key={at} className="h-8 animate-pulse rounded bg-line/50" />
      ))}
    </div>
  );
}

/** Where to go on from an address under which nothing stands, by its first part. */
const waysOn: Readonly<Record<string, { readonly to: string; readonly name: string }>> = {
  child: { to: "/class", name: "Class" },
  class: { to: "/class", name: "Class" },
  import: { to: "/class", name: "Class" },
  orders: { to: "/orders", name: "Teaching orders" },
  check: { to: "/check", name: "Check" },
  gaps: { to: "/gaps", name: "Gaps" },
  groups: { to: "/groups", name: "Groups" },
  sessions: { to: "/sessions", name: "Sessions" },
  week: { to: "/week", name: "Week" },
  texts: { to: "/texts", name: "Texts" },
  words: { to: "/words", name: "Words" },
};

/** What the server said, when it was the server that refused: such an error carries it. */
function problemOf(error: unknown): Problem | undefined {
  return error instanceof Error && "problem" in error ? (error.problem as Problem) : undefined;
}

/** An error in place of content: what happened, what to do, and the way on where the address leads nowhere. */
export function Trouble({ error }: { error: unknown }) {
  const { pathname, search } = useLocation();
  const problem = problemOf(error);
  const title = problem?.title ?? "Not now";
  const text = error instanceof Error ? error.message : "Something went wrong.";
  const nowhere = problem !== undefined && problem.status < 500;
  const way = waysOn[pathname.split("/")[1] ?? ""];
  return (
    <div role="alert" className="rounded-lg border border-damson bg-damson-pale px-5 py-4">
      <p className="font-semibold">{title}</p>
      <p>{text}</p>
      {nowhere && way && (
        <p className="mt-3">
          <ButtonLink to={way.to} reloadDocument={`${pathname}${search}` === way.to}>
            Go to {way.name}
          </ButtonLink>
        </p>
      )}
    </div>
  );
}

/** What could not be done, where it was asked: said aloud as it appears; nothing while all is well. */
export function Fault({ children, className = "" }: { children: ReactNode; className?: string }) {
  if (!children) return null;
  return (
    <p role="alert" className={`rounded-md bg-damson-pale px-3 py-2 ${className}`}>
      {children}
    </p>
  );
}
