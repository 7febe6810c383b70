import { useEffect, useState } from "react";
import { useSpeaks } from "./settings.ts";

/** The voice of this device, where it has one; off until someone wants it, and nothing ever needs it. */
export interface Voice {
  /** It has a voice that speaks English. */
  readonly isThere: boolean;
  readonly isOn: boolean;
  readonly setOn: (on: boolean) => void;
  readonly say: (text: string) => void;
}

/** A little slower than one speaks, so that each sound is heard. */
const RATE = 0.85;

/** A voice as they speak here, else any that speaks English. */
function voiceOf(synth: SpeechSynthesis): SpeechSynthesisVoice | undefined {
  const voices = synth.getVoices();
  return voices.find(({ lang }) => /^en[-_]GB/i.test(lang)) ?? voices.find(({ lang }) => /^en\b/i.test(lang));
}

export function useVoice(): Voice {
  const synth = typeof speechSynthesis === "undefined" ? undefined : speechSynthesis;
  const [speaks, setSpeaks] = useSpeaks();
  const [isThere, setThere] = useState(() => synth !== undefined && voiceOf(synth) !== undefined);
  useEffect(() => {
    // Some devices know their voices only after a while.
    const look = () => setThere(synth !== undefined && voiceOf(synth) !== undefined);
    look();
    synth?.addEventListener?.("voiceschanged", look);
    return () => {
      synth?.removeEventListener?.("voiceschanged", look);
      synth?.cancel();
    };
  }, [synth]);
  const say = (text: string) => {
    const voice = synth && voiceOf(synth);
    if (!synth || !voice) return;
    const spoken = new SpeechSynthesisUtterance(text);
    Object.assign(spoken, { voice, lang: voice.lang, rate: RATE });
    // What was said before and is not over gives way.
    synth.cancel();
    synth.speak(spoken);
  };
  return { isThere, isOn: isThere && speaks, setOn: setSpeaks, say };
}
