import type { LetterShapes } from "#core/checks";

const KEY = "keen-letters";

async function show(shapes: string): Promise<void> {
  if (shapes === "printed") await import("@fontsource/atkinson-hyperlegible/latin-400.css");
  document.documentElement.dataset.letters = shapes;
}

/** Shows what children read in these letters from now on, in every window of this device. */
export function showLetters(shapes: LetterShapes): void {
  const before = localStorage.getItem(KEY) ?? "written";
  if (before !== shapes) localStorage.setItem(KEY, shapes);
  if (before !== shapes || shapes !== "written") void show(shapes);
}

/** Follows another window of this device that shows other letters, from those that were shown here last. */
export function followLetters(): void {
  void show(localStorage.getItem(KEY) ?? "written");
  addEventListener("storage", ({ key, newValue }) => {
    if (key === KEY) void show(newValue ?? "written");
  });
}
