import { lazy, type ReactNode, Suspense, useState } from "react";
import { Button } from "./button.tsx";
import { Sheet } from "./dialog.tsx";
import { Fault } from "./page.tsx";

const QrCode = lazy(() => import("./qr.tsx").then((module) => ({ default: module.QrCode })));

/** Where the child sees the items: this screen, a second window, or another device by a code. */
export function FacePanel({
  open,
  code,
  onClose,
  onAsk,
  onHere,
  children,
}: {
  open: boolean;
  code: string | null;
  onClose: () => void;
  /** Gets a code for another device; throws with the reason in words. Missing where there is none. */
  onAsk?: (() => Promise<void>) | undefined;
  /** Shows it on this screen, to be turned round; missing where that is not offered. */
  onHere?: () => void;
  /** How what is shown may look, where that can be chosen. */
  children?: ReactNode;
}) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const ask = async () => {
    try {
      setTrouble(null);
      await onAsk?.();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Sheet open={open} onClose={onClose} title="What the child sees">
      <div className="flex flex-col gap-4">
        {children}
        {onHere && (
          <div>
            <Button onClick={onHere}>Show it on this screen</Button>
            <p className="mt-1 text-sm text-soft">To turn round. A button in the corner leads back.</p>
          </div>
        )}
        <div>
          <Button onClick={() => window.open("/face", "keen-face", "popup,width=900,height=700")}>
            Open a second window
          </Button>
          <p className="mt-1 text-sm text-soft">
            On this machine, for a second screen. It also works without a connection.
          </p>
        </div>
        <div className={onAsk ? "" : "hidden"}>
          {code ? (
            <div className="flex flex-wrap items-center gap-4">
              <p className="flex-1 basis-56">
                On the other device open <strong>{location.host}/look</strong> and type
                <output className="mt-1 block text-4xl font-semibold tabular-nums tracking-[0.2em]">
                  {code.slice(0, 3)} {code.slice(3)}
                </output>
                or read this with its camera.
              </p>
              <Suspense fallback={<span className="size-40" />}>
                <QrCode
                  text={`${location.origin}/look?code=${code}`}
                  label="The code, to be read by a camera"
                  size={160}
                />
              </Suspense>
            </div>
          ) : (
            <Button onClick={ask}>Get a code for another device</Button>
          )}
          <p className="mt-1 text-sm text-soft">
            The other device shows what is to be read and nothing else, and no one signs in on it. The code ends with
            this check, reading or session.
          </p>
          <Fault>{trouble}</Fault>
        </div>
      </div>
    </Sheet>
  );
}
