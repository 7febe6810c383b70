import { type KeyboardEvent, useState } from "react";

import type { FaceBody, PreparationBody } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { faceCodeFor, useFace } from "#web/device/face-channel.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { ChildFace } from "#web/parts/child-face.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { endFace } from "./reading-face.tsx";

/** What is shown of a preparation, one after another: spellings, then words. */
function facesOf({ focus, first, longer, wholes }: PreparationBody): readonly FaceBody[] {
  const word = (text: string) => ({ show: "text" as const, text, size: "word" as const });
  return [
    ...focus.map((gpc) => ({
      show: "text" as const,
      text: showGrapheme(splitGpc(gpc).grapheme),
      size: "letters" as const,
    })),
    ...[...new Set([...first, ...longer, ...wholes])].map(word),
  ];
}

/** Shows a preparation on the child's face, one thing after another, turned by the adult. */
export function PreparationShow({ preparation }: { preparation: PreparationBody }) {
  const [open, setOpen] = useState(false);
  const faces = facesOf(preparation);
  return (
    <>
      <Button onClick={() => setOpen(true)} disabled={faces.length === 0}>
        Show one by one
      </Button>
      {open && <Showing faces={faces} onClose={() => setOpen(false)} />}
    </>
  );
}

function Showing({ faces, onClose }: { faces: readonly FaceBody[]; onClose: () => void }) {
  const [at, setAt] = useState(0);
  const [code, setCode] = useState<string | null>(null);
  const [deskId] = useState(newId);
  const face = faces[at] ?? { show: "nothing" as const };
  const turn = (by: number) => setAt((now) => Math.max(0, Math.min(faces.length - 1, now + by)));
  useFace({ deskId, elsewhere: code !== null, face });
  const byKey = ({ key }: KeyboardEvent) => {
    if (key === "ArrowRight") turn(1);
    if (key === "ArrowLeft") turn(-1);
  };
  const close = () => {
    endFace(deskId, code);
    onClose();
  };
  return (
    <FacePanel open code={code} onClose={close} onAsk={async () => setCode(await faceCodeFor(deskId))}>
      <div className="flex min-h-40 items-center justify-center overflow-hidden rounded border border-line">
        <div className="w-full scale-50">
          <ChildFace face={face} room="desk" />
        </div>
      </div>
      <fieldset className="flex items-center justify-between" onKeyDown={byKey}>
        <legend className="sr-only">Which is shown; arrow keys turn it</legend>
        <Button onClick={() => turn(-1)} disabled={at === 0}>
          ← Before
        </Button>
        <span aria-live="polite">
          {at + 1} of {faces.length}
        </span>
        <Button shape="main" autoFocus onClick={() => turn(1)} aria-disabled={at >= faces.length - 1}>
          Next →
        </Button>
      </fieldset>
    </FacePanel>
  );
}
