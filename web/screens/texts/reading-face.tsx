import { useState } from "react";
import { type ChildLetters, closeFace, type FaceBody } from "#contract";
import { call } from "#web/device/api.ts";
import { faceCodeFor, useFace } from "#web/device/face-channel.ts";
import { keepKeys, useKeys } from "#web/device/keys.tsx";
import { Button } from "#web/parts/button.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { lettersFor } from "#web/parts/letters-for.ts";
import type { ReadingDesk } from "./use-reading.ts";

/** What the child sees of a reading: the whole text, or the line that it has come to. */
function faceOf({ draft, shown, lines, line, look }: ReadingDesk): FaceBody {
  if (!draft) return { show: "nothing" };
  const text = look.lineByLine ? (lines[line]?.text ?? "") : `${draft.body.title}\n\n${shown}`;
  return { show: "passage", text, size: look.size, spacing: look.spacing };
}

interface FaceWanted {
  readonly desk: ReadingDesk;
  /** How letters stand for the child who reads; missing where a group does. */
  readonly letters: ChildLetters | undefined;
}

/** The text on the child's face: how it looks, where it is shown, and turning its lines. */
export function ReadingFace({ desk, letters }: FaceWanted) {
  const { draft, put, look, setLook, lines, line, turn } = desk;
  const [open, setOpen] = useState(false);
  const code = draft?.faceCode ?? null;
  const deskId = draft?.id ?? "";
  useFace({ deskId, elsewhere: code !== null, face: lettersFor(faceOf(desk), letters) });
  useKeys([
    {
      key: "ArrowDown",
      does: "The next line, where the child sees line by line",
      run: () => look.lineByLine && turn(1),
    },
    { key: "ArrowUp", does: "The line before", run: () => look.lineByLine && turn(-1) },
  ]);
  return (
    <>
      {/* Without the focus, so that the space bar starts the clock and does not open it again. */}
      <Button className="min-h-12" onMouseDown={keepKeys} onClick={() => setOpen(true)}>
        The child's text
      </Button>
      {look.lineByLine && (
        <span className="flex items-center gap-1">
          <Button className="min-h-12" onClick={() => turn(-1)} disabled={line === 0} aria-label="The line before">
            ↑
          </Button>
          <Button
            className="min-h-12"
            shape="main"
            onClick={() => turn(1)}
            disabled={line >= lines.length - 1}
            aria-label="The next line"
          >
            Line {line + 1} of {lines.length} ↓
          </Button>
        </span>
      )}
      <FacePanel
        open={open}
        code={code}
        onClose={() => setOpen(false)}
        onAsk={async () => put({ faceCode: await faceCodeFor(deskId) })}
      >
        <fieldset className="flex flex-col gap-2">
          <legend className="mb-1 font-semibold">How the text looks</legend>
          <Range
            label="Size"
            min={20}
            max={72}
            step={2}
            value={look.size}
            onChange={(size) => setLook({ ...look, size })}
          />
          <Range
            label="Space between lines"
            min={1.2}
            max={3}
            step={0.1}
            value={look.spacing}
            onChange={(spacing) => setLook({ ...look, spacing })}
          />
          <Tick
            label="A line for each sentence"
            checked={look.sentences || look.lineByLine}
            disabled={look.lineByLine}
            onChange={(sentences) => setLook({ ...look, sentences })}
          />
          <Tick
            label="One line at a time; you turn it with the arrow down"
            checked={look.lineByLine}
            onChange={(lineByLine) => setLook({ ...look, lineByLine })}
          />
          <p
            className="font-child max-h-40 overflow-hidden whitespace-pre-line rounded border border-line px-3 py-2"
            style={{ fontSize: look.size, lineHeight: look.spacing }}
          >
            {lines
              .slice(0, look.lineByLine ? 1 : 2)
              .map((one) => one.text)
              .join(look.sentences ? "\n" : " ")}
          </p>
        </fieldset>
      </FacePanel>
    </>
  );
}

/** Ends what another device shows of a reading; without a line it ends by itself after a day. */
export function endFace(deskId: string, code: string | null): void {
  if (code !== null) void call(closeFace, { params: { id: deskId } }).catch(() => undefined);
}

interface RangeWanted {
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

function Range({ label, min, max, step, value, onChange }: RangeWanted) {
  return (
    <label className="flex items-center justify-between gap-3">
      {label}
      <input
        type="range"
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        className="w-48 accent-leaf"
      />
    </label>
  );
}

function Tick({
  label,
  checked,
  disabled = false,
  onChange,
}: {
  label: string;
  checked: boolean;
  disabled?: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
        className="accent-leaf"
      />
      {label}
    </label>
  );
}
