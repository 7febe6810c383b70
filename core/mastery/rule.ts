/** All numbers of the rule, in one place. */
export const rule = {
  /** Days on which a correspondence must be right at once, one after the other. */
  secureDays: 2,
  /** Days after which something secure that no one asked for counts as unsteady again. */
  fadeAfter: 56,
  /** Different words of texts in which a spelling must fail, since it was last asked, to count as unsteady. */
  textWords: 2,
  /** Days for which a misread in a text counts. */
  textDays: 56,
};
