import { type FormEvent, useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { type FaceBody, type FaceDeed, faceEvent, getFace, livePaths, tapFace } from "#contract";
import { call, wordsOfError } from "#web/device/api.ts";
import { showLetters } from "#web/device/letters.ts";
import { Button } from "#web/parts/button.tsx";
import { FacePage } from "#web/parts/face-page.tsx";
import { TextField } from "#web/parts/field.tsx";
import { usePlaceTitle } from "#web/parts/page.tsx";

/** The child's face on another device: six figures, then one item after another until the check ends. */
export function Screen() {
  usePlaceTitle("Card");
  const [search, setSearch] = useSearchParams();
  const code = search.get("code");
  const [ended, setEnded] = useState(false);
  const end = () => {
    setEnded(true);
    setSearch({}, { replace: true });
  };
  if (code) return <Face code={code} onEnd={end} />;
  return <Ask ended={ended} onCode={(typed) => setSearch({ code: typed }, { replace: true })} />;
}

function Ask({ ended, onCode }: { ended: boolean; onCode: (code: string) => void }) {
  const [typed, setTyped] = useState("");
  const [trouble, setTrouble] = useState<string | undefined>();
  const look = async (event: FormEvent) => {
    event.preventDefault();
    const code = typed.replace(/\D/g, "");
    if (code.length !== 6) return setTrouble("A code has six figures.");
    try {
      await call(getFace, { params: { code } });
      onCode(code);
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <main className="flex h-screen items-center justify-center bg-sheet p-4">
      <form onSubmit={look} className="flex w-72 flex-col gap-3 text-center">
        <h1>{ended ? "That was all." : "Show the cards here"}</h1>
        <TextField
          label="Code"
          hint="Six figures from the adult's screen."
          inputMode="numeric"
          autoComplete="off"
          autoFocus={!ended}
          maxLength={7}
          value={typed}
          problem={trouble}
          className="text-center text-2xl tracking-[0.3em]"
          onChange={(event) => {
            setTyped(event.target.value);
            setTrouble(undefined);
          }}
        />
        <Button type="submit" shape="main" className="min-h-11">
          Show
        </Button>
      </form>
    </main>
  );
}

const AGAIN_MS = 1500;

/** Follows the desk over the line; without a line the last item stays, and the browser asks again by itself. */
function Face({ code, onEnd }: { code: string; onEnd: () => void }) {
  const [face, setFace] = useState<FaceBody>({ show: "nothing" });
  // biome-ignore lint/correctness/useExhaustiveDependencies: one stream a code
  useEffect(() => {
    const stream = new EventSource(livePaths.face(code));
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const event = faceEvent.safeParse(JSON.parse(data));
      if (!event.success) return;
      if (event.data.kind === "face") setFace(event.data.face);
      else onEnd();
    };
    // Closed for good means that the code has ended, not that the line is down.
    stream.onerror = () => stream.readyState === EventSource.CLOSED && onEnd();
    return () => stream.close();
  }, [code]);
  useEffect(() => {
    call(getFace, { params: { code } })
      .then(({ letterShapes }) => showLetters(letterShapes))
      .catch(() => undefined);
  }, [code]);
  const waiting = useRef<FaceDeed[]>([]);
  const isTelling = useRef(false);
  // One after the other, so that what was done last stands; of how tiles lie or sounds stand, what is older by then is left out. A
  // tap is made again by the child; those are told until the adult's side has them.
  const tell = (deed: FaceDeed) => {
    const last = waiting.current.at(-1);
    if (last && !("choice" in last) && last.item === deed.item && !("choice" in deed)) waiting.current.pop();
    waiting.current.push(deed);
    void tellAll();
  };
  const tellAll = async () => {
    if (isTelling.current) return;
    isTelling.current = true;
    for (let deed = waiting.current.shift(); deed; deed = waiting.current.shift()) {
      try {
        await call(tapFace, { params: { code }, body: deed });
      } catch {
        if ("choice" in deed || waiting.current.length > 0) continue;
        waiting.current.push(deed);
        await new Promise((done) => setTimeout(done, AGAIN_MS));
      }
    }
    isTelling.current = false;
  };
  return <FacePage face={face} onDeed={tell} />;
}
