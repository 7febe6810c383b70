import { useState } from "react";
import { useNavigate } from "react-router";
import { listReadings, type School, saveReading, type TextView } from "#contract";
import { aimOn, doubtfulTime, hardness, nextText, scoreReading } from "#core/reading";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { useMarker } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { TextArea } from "#web/parts/field.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import type { Draft } from "./draft.ts";
import { endFace } from "./reading-face.tsx";
import { ReadingPrint } from "./reading-print.tsx";
import { PaceAlong, ReadAgain, ReadingScore } from "./reading-score.tsx";
import { useShelf } from "./shelf.ts";
import type { ReadingDesk } from "./use-reading.ts";
import { Understanding, Voice } from "./voice-and-questions.tsx";

interface AfterWanted {
  readonly desk: ReadingDesk;
  readonly text: TextView | undefined;
  readonly ground: SchoolWords;
  readonly who: string;
  readonly classId: string | undefined;
  readonly school: School;
  /** Where to go on once it is kept. */
  readonly next: string;
}

/** What a reading says, what else is to be noted, and what comes next. */
export function AfterReading({ desk, text, ground, who, classId, school, next }: AfterWanted) {
  const navigate = useNavigate();
  const [marker] = useMarker();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [doubted, setDoubted] = useState(false);
  const { draft, forget, putBody } = desk;
  if (!draft) return null;
  const { body, group } = draft;
  const together = group.length > 0;
  const yearGroup = school.classes.find((one) => one.id === classId)?.yearGroup ?? "";
  const aim = aimOn(body.day, yearGroup, school.reading);
  const doubt = together ? null : doubtfulTime(body);
  const keep = async (ms = body.ms) => {
    setDoubted(false);
    setBusy(true);
    setTrouble(null);
    try {
      const markedBy = marker.trim() || "Teacher";
      for (const { id, childId } of kept(draft))
        await call(saveReading, { params: { id }, body: { ...body, ms, childId, markedBy } });
      endFace(draft.id, draft.faceCode);
      await forget();
      await refreshAll();
      toast("Saved.");
      // The child's page says what it changed on the map; what a group read together changes none.
      navigate(together ? next : `${next}?reading=${draft.id}`);
    } catch (error) {
      setBusy(false);
      setTrouble(`${wordsOfError(error)} The reading is kept on this device.`);
    }
  };
  const measured = {
    limits: school.reading,
    aim: aim === undefined ? undefined : { yearGroup, value: aim },
  };
  return (
    <>
      <ReadingPrint draft={draft} who={who} text={text} ground={ground} {...measured} />
      <div className="no-print mt-4 grid items-start gap-4 lg:grid-cols-2">
        <div className="flex flex-col gap-4">
          {together ? (
            <Panel title="Read together">
              <p>
                What is marked stopped the group. It is kept with each child who is here, without a rate, and says
                nothing about one child.
              </p>
            </Panel>
          ) : (
            <>
              <ReadingScore reading={body} ground={ground} {...measured} />
              <PaceAlong reading={body} />
              <Before desk={desk} limits={school.reading} name={who} />
            </>
          )}
        </div>
        <div className="flex flex-col gap-4">
          {!together && <Voice voice={body.voice} onChange={(voice) => putBody({ voice })} />}
          {text && text.questions.length > 0 && (
            <Understanding
              questions={text.questions}
              given={body.understanding}
              onChange={(understanding) => putBody({ understanding })}
            />
          )}
          <TextArea
            label="Note"
            rows={2}
            maxLength={300}
            value={body.note}
            onChange={(event) => putBody({ note: event.target.value })}
          />
          <Fault>{trouble}</Fault>
          <div className="flex flex-wrap gap-2">
            <Button
              shape="main"
              className="min-h-12"
              disabled={busy || kept(draft).length === 0}
              onClick={() => (doubt ? setDoubted(true) : void keep())}
            >
              {together ? `Save for ${plural(kept(draft).length, "child", "children")}` : "Save this reading"}
            </Button>
            <Button className="min-h-12" onClick={() => window.print()}>
              Print
            </Button>
            {doubt && (
              <Sheet open={doubted} onClose={() => setDoubted(false)} title="Can the time be right?">
                <p>{doubt} What was marked can be saved without its time, which then counts for no rate.</p>
                <div className="mt-4 flex flex-wrap justify-end gap-2">
                  <Button onClick={() => setDoubted(false)}>Go back</Button>
                  <Button onClick={() => void keep()}>Save it with this time</Button>
                  <Button shape="main" onClick={() => void keep(null)}>
                    Save it without the time
                  </Button>
                </div>
              </Sheet>
            )}
          </div>
        </div>
      </div>
    </>
  );
}

/** Whose readings are kept, each under its own id. */
function kept({ id, body, group }: Draft): readonly { readonly id: string; readonly childId: string }[] {
  if (group.length === 0) return [{ id, childId: body.childId }];
  return group.filter((one) => one.came).map(({ readingId, childId }) => ({ id: readingId, childId }));
}

/** Readings of this text before this one, and which text to take tomorrow. */
function Before({ desk, limits, name }: { desk: ReadingDesk; limits: Parameters<typeof hardness>[1]; name: string }) {
  const body = desk.draft?.body;
  const childId = body?.childId ?? "";
  const earlier = useAsk(listReadings, { params: { id: childId } });
  const { shelf, error } = useShelf(`child:${childId}`);
  if (!body) return null;
  const others = (earlier.data ?? []).filter((one) => one.id !== desk.draft?.id && one.how === "alone");
  const same = others.filter((one) => one.textId === body.textId && one.readAt < body.readAt);
  const found =
    shelf &&
    nextText(
      { id: body.textId, hardness: hardness(scoreReading(body).accuracy, limits), times: same.length + 1 },
      shelf,
      new Set([...others.map((one) => one.textId), body.textId]),
    );
  return (
    <>
      <ReadAgain earlier={same} now={body} />
      <Panel title="Tomorrow">
        {found ? (
          <p>
            <span className="font-child text-lg">{found.text.text.title}</span>
            <br />
            {found.why} <span className="text-soft">{found.text.fit.why}</span>
          </p>
        ) : (
          <p className="text-soft">
            {shelf
              ? "The shelf has no text left that fits."
              : error
                ? "The shelf needs a connection; this reading does not."
                : "Looking along the shelf …"}
          </p>
        )}
        <p className="mt-2 flex flex-wrap gap-2">
          {found && (
            <ButtonLink to={`/texts/${found.text.id}?for=child:${childId}`} className="min-h-12">
              Look at it
            </ButtonLink>
          )}
          <ButtonLink to={`/texts?for=child:${childId}`} className="min-h-12">
            Texts that fit {name}
          </ButtonLink>
        </p>
      </Panel>
    </>
  );
}
