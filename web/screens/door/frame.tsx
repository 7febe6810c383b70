import type { ReactNode } from "react";

/** What stands before a school is entered: the school's name, and one thing to do. */
export function DoorFrame({ school, title, children }: { school: string; title: string; children: ReactNode }) {
  return (
    <main id="place" className="mx-auto flex min-h-screen w-full max-w-md flex-col justify-center gap-5 px-5 py-10">
      <div className="flex items-center gap-3">
        <img src="/sapling.svg" alt="" width={36} height={36} />
        <div className="leading-tight">
          <p className="font-semibold">Keen Sapling</p>
          <p className="text-soft">{school || "Your school"}</p>
        </div>
      </div>
      <h1 className="text-2xl font-semibold">{title}</h1>
      {children}
    </main>
  );
}

/** What was refused, beside the form that it is about. */
export function Said({ words }: { words: string | undefined }) {
  return (
    <p role="alert" className={words ? "rounded-md bg-damson-pale px-3 py-2" : "sr-only"}>
      {words}
    </p>
  );
}
