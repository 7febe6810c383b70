/** What a child says to a card. */
export type AnswerForm = "sound" | "nameSound" | "nameKeywordSound";
/** Exception words: spelled and read as wholes, or sounded with the unexpected part marked. */
export type ExceptionWay = "wholes" | "sounded";

/** A spelling with several taught sounds: any of them will do · all of them are asked for · the one that a word shows. */
export type SeveralSounds = "any" | "all" | "word";

/** Letters that children read: as they are written by hand, or as books print them. */
export type LetterShapes = "written" | "printed";

/** How this school checks. Every one of these is a choice on which teachers disagree. */
export interface Settings {
  readonly answerForm: AnswerForm;
  readonly exceptionWay: ExceptionWay;
  readonly severalSounds: SeveralSounds;
  /** Made-up words may be asked. */
  readonly madeUp: boolean;
  /** Seconds after which a right answer counts as slow; 0 leaves it to the adult's mark. */
  readonly slowAfter: number;
  readonly letterShapes: LetterShapes;
  /** What is only heard may be said by a device's own voice. */
  readonly deviceVoice: boolean;
}

/** How a school checks until it says otherwise. */
export const defaultSettings: Settings = {
  answerForm: "sound",
  exceptionWay: "sounded",
  severalSounds: "all",
  madeUp: true,
  slowAfter: 3,
  letterShapes: "written",
  deviceVoice: false,
};

export const answerForms: readonly AnswerForm[] = ["sound", "nameSound", "nameKeywordSound"];
export const severalSoundsWays: readonly SeveralSounds[] = ["any", "all", "word"];
export const letterShapesOf: readonly LetterShapes[] = ["written", "printed"];
export const exceptionWays: readonly ExceptionWay[] = ["wholes", "sounded"];
