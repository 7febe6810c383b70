import { createContext, useContext, useEffect, useRef } from "react";

/** Says that a sheet is open and how it is closed; what is returned says that it is closed. */
export type OpenSheets = (close: () => void) => () => void;

export const SheetsContext = createContext<OpenSheets>(() => () => {});

/** While it is open, the way back closes this first. */
export function useOpenSheet(open: boolean, onClose: () => void): void {
  const register = useContext(SheetsContext);
  const latest = useRef(onClose);
  useEffect(() => {
    latest.current = onClose;
  });
  useEffect(() => (open ? register(() => latest.current()) : undefined), [open, register]);
}
