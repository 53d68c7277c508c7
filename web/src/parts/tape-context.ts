/** What the tape shows: the words that the item in hand came from. */
import { createContext, useContext, useEffect } from "react";
import type { Evidence } from "../api/client";

type Tape = { focus: Evidence[]; setFocus: (focus: Evidence[]) => void };
export const TapeContext = createContext<Tape>({ focus: [], setFocus: () => {} });
export const useTape = () => useContext(TapeContext);

/** Lights up the evidence of the item in hand for as long as it is in hand. */
export function useEvidence(evidence: Evidence[] | undefined) {
  const { setFocus } = useTape();
  const key = JSON.stringify(evidence ?? []);
  useEffect(() => {
    setFocus(JSON.parse(key) as Evidence[]);
    return () => setFocus([]);
  }, [key, setFocus]);
}
