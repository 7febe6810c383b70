import { Eye } from "lucide-react";
import { useState } from "react";
import { getSecondLooks, type SecondLook } from "#contract";
import { plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";

/** So many children stand there at first, and so many of the cards of each. */
const [CHILDREN, CARDS] = [4, 5];
/** Who would settle less than this share of what the first would is not listed. */
const ENOUGH = 0.6;

/** Who should be asked what again, in at most three minutes each: what is fading, doubtful, was missed once or never met. */
export function SecondLooks() {
  const { data } = useAsk(getSecondLooks, {});
  const [all, setAll] = useState(false);
  if (!data || data.length === 0) return null;
  // Those of whom most that matters is doubtful: their three minutes settle most.
  const worth = ({ cards }: SecondLook) => cards.reduce((sum, card) => sum + card.worth, 0);
  const sorted = [...data].sort((one, other) => worth(other) - worth(one));
  const inOrder = sorted.filter((one) => worth(one) >= ENOUGH * worth(sorted[0] as SecondLook));
  const shown = all ? inOrder : inOrder.slice(0, CHILDREN);
  return (
    <Panel title="Worth a second look">
      <p className="mb-1 text-sm text-soft">
        A few cards each, under three minutes: what is fading or doubtful, was missed once, or was taught while they
        were away.
      </p>
      <ul className="flex flex-col divide-y divide-line">
        {shown.map((look) => (
          <Look key={look.id} look={look} />
        ))}
      </ul>
      {inOrder.length > CHILDREN && (
        <Button className="mt-2" onClick={() => setAll(!all)}>
          {all ? "Show fewer" : `Show all ${inOrder.length}`}
        </Button>
      )}
    </Panel>
  );
}

function Look({ look: { id, name, className, cards } }: { look: SecondLook }) {
  const count = (why: SecondLook["cards"][number]["why"]) => cards.filter((card) => card.why === why).length;
  const says = [
    [count("fading"), "fading"],
    [count("unsure"), "doubtful"],
    [count("slipped"), "slipped once"],
    [count("away"), "taught while away"],
  ].flatMap(([number, word]) => (number === 0 ? [] : `${number} ${word}`));
  const search = new URLSearchParams([["child", id], ...cards.map(({ gpc }) => ["card", gpc])]);
  return (
    <li className="flex items-center gap-3 py-1.5">
      <Eye size={16} aria-hidden className="flex-none text-soft" />
      <span className="min-w-0 flex-1">
        <strong>{name}</strong>{" "}
        <span className="text-soft">
          {className}, {says.join(", ")}
        </span>
        <span className="mt-0.5 flex flex-wrap gap-1">
          {cards.slice(0, CARDS).map(({ gpc }) => (
            <Spelling key={gpc} gpc={gpc} />
          ))}
          {cards.length > CARDS && (
            <span className="text-sm text-soft">and {plural(cards.length - CARDS, "more", "more")}</span>
          )}
        </span>
      </span>
      <ButtonLink to={`/check?${search}`} aria-label={`Ask ${name} again`}>
        Ask
      </ButtonLink>
    </li>
  );
}
