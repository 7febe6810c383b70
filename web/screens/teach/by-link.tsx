import { useEffect, useMemo, useState } from "react";
import { useParams } from "react-router";
import {
  type AnswerBody,
  getShared,
  type ReportBody,
  reportShared,
  type SharedCard,
  type TaughtMark,
} from "#contract";
import { shortDay } from "#core/saying";
import type { Lexicon } from "#core/words";
import { call, useAskOnly } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { showLetters } from "#web/device/letters.ts";
import { useLexiconByLink } from "#web/device/lexicon.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Finish } from "./finish.tsx";
import { TeachDesk } from "./teach-desk.tsx";
import { textsRead } from "./texts-read.ts";
import { useTeach } from "./use-teach.ts";

/** A session that is taught by whoever has its link: the same screen; what was marked goes with the report. */
export function Screen() {
  const { token = "" } = useParams();
  const { data, error } = useAskOnly(getShared, { params: { token } });
  const { lexicon, error: noWords } = useLexiconByLink(data);
  const letters = data?.letterShapes;
  useEffect(() => {
    if (letters) showLetters(letters);
  }, [letters]);
  const trouble = (data ? undefined : error) ?? noWords;
  return (
    <main>
      {data && lexicon ? (
        <Taught {...{ token, lexicon, card: data }} />
      ) : (
        <Page place="Teach" title="Teach">
          {trouble ? <Trouble error={trouble} /> : <Waiting rows={9} />}
        </Page>
      )}
    </main>
  );
}

/** A mark as it goes with a report by link; undefined for what is no mark of its own. */
function taughtMark(answer: AnswerBody): readonly TaughtMark[] {
  if (!("kind" in answer)) return [];
  const { id, childId, kind, item, outcome, help, markedAt } = answer;
  if (!["card", "words", "exception", "dictation"].includes(kind) || (outcome !== "right" && outcome !== "wrong"))
    return [];
  const heard = outcome === "wrong" && "heard" in answer ? (answer.heard ?? null) : null;
  return [{ id, childId, item, outcome, heard, help, kind, at: markedAt } as TaughtMark];
}

function Taught({ token, card, lexicon }: { token: string; card: SharedCard; lexicon: Lexicon }) {
  const session = { ...card, id: card.sessionId };
  const teaching = useTeach(session, { lexicon, sendsAtOnce: false });
  const [thanked, setThanked] = useState(false);
  const actions = useMemo(() => <ButtonLink to={`/shared/${token}`}>The card</ButtonLink>, [token]);
  if (thanked || !teaching)
    return (
      <Page place="Teach" title={card.groupName}>
        {thanked ? (
          <p role="status" className="rounded-md bg-leaf-pale px-3 py-2">
            Thank you. The teacher sees it now, with everything that was marked.
          </p>
        ) : (
          <Waiting rows={9} />
        )}
      </Page>
    );
  const send = async (report: ReportBody) => {
    const readings = textsRead(teaching, card.texts).map(({ readingId, childId, text, marks }) => ({
      ...{ id: readingId, childId, textId: text.id, title: text.title, text: text.body },
      ...{ marks: [...marks], stoppedAt: null, at: stampNow() },
    }));
    await call(reportShared, {
      params: { token },
      body: { ...report, taught: teaching.answers().flatMap(taughtMark), readings },
    });
    await teaching.forget();
    return () => setThanked(true);
  };
  return (
    <TeachDesk
      {...{ session, lexicon, teaching, texts: card.texts, speaks: card.deviceVoice }}
      about={`${shortDay(card.heldOn, card.today)}. What you mark is kept on this device and goes with what you say at the end.`}
      actions={actions}
      empty={<p>This session has no part. Ask the teacher who sent the link.</p>}
      finish={(nameOf) => <Finish {...{ teaching, nameOf, by: null, unsent: 0 }} onSend={send} />}
    />
  );
}
