import type { MemberFit } from "#core/groups";
import { TargetMarks } from "#web/parts/target-marks.tsx";

/** What fits a child in its group and what does not. */
export function FitLine({
  fit,
  targets,
  served,
}: {
  fit: MemberFit;
  targets: readonly string[];
  /** What it gains of what lessons of its own would give, 0 to 1. */
  served?: number | undefined;
}) {
  return (
    <div className="text-sm">
      <p>
        <FitBar share={fit.share} /> needs {fit.fits.length} of {targets.length}
        {served !== undefined && (
          <span className="text-soft" title="Of what lessons of its own would give">
            {" "}
            · gains {Math.round(served * 100)}%
          </span>
        )}
      </p>
      {targets.length > 0 && fit.fits.length === 0 && fit.has.length < targets.length && (
        <p className="text-damson">Needs none of these: better in another group, or in none.</p>
      )}
      {fit.has.length > 0 && (
        <p className="text-soft">
          has already: <TargetMarks targets={fit.has} />
        </p>
      )}
      {fit.unsure.length > 0 && (
        <p className="text-soft">
          not known to need: <TargetMarks targets={fit.unsure} />
        </p>
      )}
    </div>
  );
}

function FitBar({ share }: { share: number }) {
  return (
    <span className="mr-1 inline-block h-2 w-12 overflow-hidden rounded-full bg-line align-middle" aria-hidden>
      <span className="block h-full bg-leaf" style={{ width: `${Math.round(share * 100)}%` }} />
    </span>
  );
}
