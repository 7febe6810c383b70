/** The places of the week: whoever opens one mostly opens the others. */
export { Screen as Hours } from "./hours.tsx";
export { Screen as Timetable } from "./timetable.tsx";
export { Screen as Week } from "./week.tsx";
