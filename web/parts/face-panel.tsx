import { type ReactNode, useState } from "react";
import { Button } from "./button.tsx";
import { Sheet } from "./dialog.tsx";

/** Where the child sees the items: this screen, a second window, or another device by a code. */
export function FacePanel({
  open,
  code,
  onClose,
  onAsk,
  children,
}: {
  open: boolean;
  code: string | null;
  onClose: () => void;
  /** Gets a code for another device; throws with the reason in words. */
  onAsk: () => Promise<void>;
  /** How what is shown may look, where that can be chosen. */
  children?: ReactNode;
}) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const ask = async () => {
    try {
      setTrouble(null);
      await onAsk();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Sheet open={open} onClose={onClose} title="What the child sees">
      <div className="flex flex-col gap-4">
        {children}
        <div>
          <Button onClick={() => window.open("/face", "keen-face", "popup,width=900,height=700")}>
            Open a second window
          </Button>
          <p className="mt-1 text-sm text-soft">
            On this machine, for a second screen. It also works without a connection.
          </p>
        </div>
        <div>
          {code ? (
            <p>
              On the other device open <strong>{location.host}/look</strong> and type
              <output className="mt-1 block text-4xl font-semibold tabular-nums tracking-[0.2em]">
                {code.slice(0, 3)} {code.slice(3)}
              </output>
            </p>
          ) : (
            <Button onClick={ask}>Get a code for another device</Button>
          )}
          <p className="mt-1 text-sm text-soft">
            The other device shows what is to be read and nothing else. The code ends with this check or reading.
            Until people and sign-in come, the server answers on this machine only, so that the other device is
            another browser on it.
          </p>
          {trouble && (
            <p role="alert" className="text-damson">
              {trouble}
            </p>
          )}
        </div>
      </div>
    </Sheet>
  );
}
