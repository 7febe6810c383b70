import { useEffect, useState } from "react";
import { useSpeaks } from "./settings.ts";

/** The voice of this device, where it has one and the school wants it; nothing ever needs it. */
export interface Voice {
  /** It has a voice that speaks English, and may use it. */
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

/** @param isWanted the school has what is only heard said by devices; each device can be silenced */
export function useVoice(isWanted: boolean): Voice {
  const synth = typeof speechSynthesis === "undefined" ? undefined : speechSynthesis;
  const [speaks, setSpeaks] = useSpeaks();
  const [hasVoice, setHasVoice] = useState(() => synth !== undefined && voiceOf(synth) !== undefined);
  useEffect(() => {
    // Some devices know their voices only after a while.
    const look = () => setHasVoice(synth !== undefined && voiceOf(synth) !== undefined);
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
  const isThere = isWanted && hasVoice;
  return { isThere, isOn: isThere && speaks, setOn: setSpeaks, say };
}
