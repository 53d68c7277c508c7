/** What the tape shows: the words that the item in hand came from; and how to play them. */
import { createContext, useContext, useEffect } from "react";
import type { Evidence } from "../api/client";

/** Once, again at six tenths of the speed, or round and round until pressed again. */
export type PlayMode = "once" | "slow" | "loop";

type Tape = {
  focus: Evidence[];
  setFocus: (focus: Evidence[]) => void;
  /** A media file is there to play. */
  ready: boolean;
  looping: boolean;
  play: (mode: PlayMode) => void;
  /** The player tells what it can do. */
  setPlayer: (player: Player | null) => void;
};
export type Player = { play: (mode: PlayMode) => void; looping: boolean };

export const TapeContext = createContext<Tape>({
  focus: [],
  setFocus: () => {},
  ready: false,
  looping: false,
  play: () => {},
  setPlayer: () => {},
});
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
