import type { Target } from "#core/groups";
import { isNeedFamily, needFamilyName } from "#core/mastery";
import { showGrapheme, splitGpc } from "#core/phonics";
import { Spelling } from "./marks.tsx";

/** What a group works on, in a word or a few: a spelling as it is written, anything else by its name. */
export function targetInWords(target: Target): string {
  return isNeedFamily(target) ? needFamilyName(target) : showGrapheme(splitGpc(target).grapheme);
}

/** A target as a small card. */
export function TargetMark({ target }: { target: Target }) {
  if (!isNeedFamily(target)) return <Spelling gpc={target} />;
  return (
    <span className="inline-block rounded border border-line bg-sheet px-1.5 py-0.5 leading-tight">
      {needFamilyName(target)}
    </span>
  );
}

/** Targets in a row. */
export function TargetMarks({ targets, none = "none" }: { targets: readonly Target[]; none?: string }) {
  if (targets.length === 0) return <span className="text-soft">{none}</span>;
  return (
    <span className="inline-flex flex-wrap gap-1 align-middle">
      {targets.map((target) => (
        <TargetMark key={target} target={target} />
      ))}
    </span>
  );
}
