import type { Target } from "#core/groups";
import type { NeedFamily } from "#core/mastery";
import { SpellingRow } from "#web/parts/spelling-row.tsx";

/** What a group works on, to change. */
export function Targets({
  group,
  order,
  others = [],
  late = false,
  onChange,
}: {
  group: { name: string; targets: readonly Target[] };
  order: readonly string[];
  /** What it can work on that is no spelling. */
  others?: readonly NeedFamily[];
  /** It is one of very many: what can be added comes when someone turns to it. */
  late?: boolean;
  onChange: (targets: readonly string[]) => void;
}) {
  return (
    <div className="my-2">
      <SpellingRow
        gpcs={group.targets}
        options={order}
        others={others}
        late={late}
        label={`Add a target to ${group.name}`}
        outOf="the targets"
        onChange={onChange}
      />
    </div>
  );
}
