/** On which the processes of one database tell one another what happened. */
export const CHANNEL = "keen_live";
