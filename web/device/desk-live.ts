import { useEffect, useRef } from "react";
import { type DeskEvent, deskEvent, livePaths } from "#contract";

/**
 * Listens to what other devices do in this sitting, or what children do at the screens of a session. A stream that broke off comes back by itself; `onBack` is called
 * then, since something may have been missed.
 */
export function useLive(sittingId: string, onEvent: (event: DeskEvent) => void, onBack: () => void, on = true): void {
  const latest = useRef({ onEvent, onBack });
  useEffect(() => {
    latest.current = { onEvent, onBack };
  });
  useEffect(() => {
    if (!on) return;
    const stream = new EventSource(livePaths.desk(sittingId));
    let lost = false;
    stream.onopen = () => {
      if (lost) latest.current.onBack();
      lost = false;
    };
    stream.onerror = () => {
      lost = true;
    };
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const event = deskEvent.safeParse(JSON.parse(data));
      if (event.success) latest.current.onEvent(event.data);
    };
    return () => stream.close();
  }, [sittingId, on]);
}
