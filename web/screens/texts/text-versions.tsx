import { type TextContentBody, textVersions } from "#contract";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel, Trouble } from "#web/parts/page.tsx";

/** Every kept state of a text; one can be put into the form again, and is kept as the next version. */
export function TextVersions({ textId, onTake }: { textId: string; onTake: (content: TextContentBody) => void }) {
  const { data, error } = useAsk(textVersions, { params: { id: textId } });
  return (
    <Panel title="Versions">
      {error && !data && <Trouble error={error} />}
      <ul className="flex flex-col">
        {data?.map(({ version, content, savedAt, savedBy }, at) => (
          <li key={version} className="flex items-baseline justify-between gap-3 border-b border-line/60 py-1.5">
            <span>
              {version}. {content.title}{" "}
              <span className="text-sm text-soft">
                {shortDay(dayOfInstant(savedAt), todayHere())}, {savedBy}
              </span>
            </span>
            {at === 0 ? (
              <span className="text-sm text-soft">as it is now</span>
            ) : (
              <Button
                shape="quiet"
                aria-label={`Put version ${version} into the form`}
                onClick={() => onTake(content)}
              >
                Put into the form
              </Button>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-soft">A reading keeps the version that was read.</p>
    </Panel>
  );
}
