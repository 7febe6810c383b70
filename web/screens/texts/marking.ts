/** What voice is heard in, and what each step from 1 to 4 sounds like. */
export const voiceSteps = {
  phrases: [
    "word by word",
    "two or three words at a time",
    "phrases, with some breaks",
    "whole phrases, as one speaks",
  ],
  stops: [
    "runs over every mark",
    "stops at some marks",
    "stops at most marks",
    "stops and lifts the voice as the marks say",
  ],
  pace: ["with long halts", "slow and uneven", "mostly even", "even, as one tells a story"],
  expression: ["one tone", "a little up and down", "fits the story in places", "sounds like the people in it"],
} as const;
export type VoiceKey = keyof typeof voiceSteps;
export const voiceNames: Record<VoiceKey, string> = {
  phrases: "Phrases",
  stops: "Stops and pauses",
  pace: "Pace",
  expression: "Expression",
};
