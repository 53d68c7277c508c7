/**
 * The tape: the recording as a strip of time along the bottom.
 *
 * Each statement is a mark; what a step rests on stands tall and full, work that nothing uses is hollow, talk is a dot.
 * The item in hand lights up the seconds it came from, and its words are read out above the strip.
 */
import { Paperclip, X } from "lucide-react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import type { Evidence, ListenView, StatementRow } from "../api/client";
import { useListen } from "../api/manual";
import { labels } from "../api/tables";
import { space } from "../theme";
import { Button, IconButton } from "./controls";
import { clock } from "./format";
import { type PlayMode, useTape } from "./tape-context";
import { MAX_BYTES, outline, waveform } from "./waveform";

const Strip = styled.section`
  background: var(--sunk);
  border-top: 1px solid var(--line);
  padding: ${space.hair} ${space.wide} ${space.small};
  @media print { display: none; }
`;
const Words = styled.p`
  font-size: 0.94rem;
  padding-bottom: ${space.hair};
  max-height: 4.6em;
  overflow: auto;
  mark { background: var(--accent-wash); color: inherit; padding: 1px 2px; border-radius: 3px; }
  time { color: var(--soft); margin-right: ${space.small}; }
`;
const Line = styled.div`
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  gap: ${space.small};
  align-items: center;
  font-size: 0.82rem;
  color: var(--soft);
  & > svg { display: block; width: 100%; height: 26px; overflow: visible; }
`;
const Media = styled.div`
  display: flex;
  gap: ${space.small};
  align-items: center;
  padding-bottom: ${space.hair};
  audio { height: 34px; width: min(420px, 100%); }
  video { height: 130px; }
`;

type Focused = { start: number; end: number; from: number; to: number };

function spans(focus: Evidence[], recording: string): Focused[] {
  return focus.flatMap((e) =>
    e.source === "recording" && e.recording === recording
      ? [{ start: e.start, end: e.end, from: e.from_ms ?? e.start, to: e.to_ms ?? e.end }]
      : [],
  );
}

export function Tape() {
  const { data } = useListen();
  const { focus } = useTape();
  if (!data || data.length === 0) return null;
  // One strip: the recording in hand, else the first.
  const asked = focus.find((e) => e.source === "recording");
  const shown = data.find((r) => asked?.source === "recording" && r.id === asked.recording) ?? data[0];
  return shown ? <OneTape key={shown.id} recording={shown} lit={spans(focus, shown.id)} /> : null;
}

function OneTape({ recording, lit }: { recording: ListenView; lit: Focused[] }) {
  const media = useRef<HTMLVideoElement & HTMLAudioElement>(null);
  const [file, setFile] = useState<Opened | null>(null);
  const [looping, setLooping] = useState(false);
  const peaks = useWaveform(file);
  const { setPlayer } = useTape();
  const remembered = useRemembered(recording.id, file);
  const statements = recording.heard.statements;
  const length = recording.timed ? recording.duration_ms : (statements.at(-1)?.statement.end ?? 1);
  const place = (ms: number) => `${(100 * Math.min(ms, length)) / Math.max(length, 1)}%`;
  const first = lit[0]?.from;
  const last = lit.at(-1)?.to;

  useEffect(() => () => URL.revokeObjectURL(file?.url ?? ""), [file]);
  const play = useCallback(
    (mode: PlayMode) => {
      const sound = media.current;
      if (!sound || first === undefined) return;
      const stop = mode === "loop" && looping;
      setLooping(mode === "loop" && !looping);
      if (stop || (mode === "once" && !sound.paused)) return sound.pause();
      sound.playbackRate = mode === "slow" ? SLOWER : 1;
      sound.currentTime = first / 1000;
      void sound.play();
    },
    [first, looping],
  );
  useEffect(() => {
    setPlayer(file ? { play, looping } : null);
    return () => setPlayer(null);
  }, [file, play, looping, setPlayer]);
  // Only the words in hand are played; a breath behind them is heard, too.
  const onTime = () => {
    const sound = media.current;
    if (!sound || sound.paused || last === undefined || first === undefined) return;
    if (sound.currentTime * 1000 < last + BREATH_MS) return;
    if (looping) sound.currentTime = first / 1000;
    else sound.pause();
  };
  useEffect(() => {
    if (media.current && first !== undefined) media.current.currentTime = first / 1000;
  }, [first]);

  return (
    <Strip aria-label="Tape">
      {lit.length > 0 && <Excerpt recording={recording} lit={lit} />}
      {file && (
        <Media>
          {file.video ? (
            // biome-ignore lint/a11y/useMediaCaption: the transcript stands right above it
            <video ref={media} src={file.url} controls onTimeUpdate={onTime} />
          ) : (
            // biome-ignore lint/a11y/useMediaCaption: the transcript stands right above it
            <audio ref={media} src={file.url} controls onTimeUpdate={onTime} />
          )}
          <IconButton aria-label="Put the media file away" onPress={() => setFile(null)}>
            <X size={18} />
          </IconButton>
        </Media>
      )}
      <Line>
        <span>{recording.timed ? "0:00" : "start"}</span>
        <svg role="img" aria-label={label(recording, lit)} preserveAspectRatio="none">
          <line x1="0" x2="100%" y1="24" y2="24" stroke="var(--strong-line)" />
          {peaks && (
            <svg
              x="0"
              y="0"
              width="100%"
              height="24"
              viewBox="0 0 100 24"
              preserveAspectRatio="none"
              data-waveform
              aria-hidden
            >
              <path d={outline(peaks, 24)} fill="var(--line)" />
            </svg>
          )}
          {lit.map((f) => (
            <rect
              key={`${f.start}`}
              x={place(f.from)}
              y="0"
              height="24"
              fill="var(--accent-wash)"
              style={{ width: `max(4px, calc(${place(f.to)} - ${place(f.from)}))` }}
            />
          ))}
          <Marks statements={statements} timed={recording.timed} place={place} />
          {lit.map((f) => (
            <line
              key={`${f.start}`}
              x1={place(f.from)}
              x2={place(f.from)}
              y1="0"
              y2="26"
              stroke="var(--accent)"
              strokeWidth="3"
            />
          ))}
        </svg>
        <span>{recording.timed ? clock(recording.duration_ms) : "end"}</span>
        <FileTrigger acceptedFileTypes={["audio/*", "video/*"]} onSelect={(files) => setFile(opened(files))}>
          <Button aria-label="Media: attach the audio or video from your disk">
            <Paperclip size={15} aria-hidden /> {remembered && !file ? `Choose ${remembered} again` : "Media"}
          </Button>
        </FileTrigger>
      </Line>
    </Strip>
  );
}

/** As slow as speech stays clear. */
const SLOWER = 0.6;
const BREATH_MS = 250;

type Opened = { file: File; url: string; video: boolean };

function opened(files: FileList | null): Opened | null {
  const file = files?.[0];
  return file ? { file, url: URL.createObjectURL(file), video: file.type.startsWith("video/") } : null;
}

function useWaveform(opened: Opened | null): number[] | null {
  const [peaks, setPeaks] = useState<number[] | null>(null);
  useEffect(() => {
    let current = true;
    setPeaks(null);
    if (opened && opened.file.size <= MAX_BYTES) {
      // A file without a sound that can be read still plays; it only has no waveform.
      waveform(opened.file).then(
        (found) => current && setPeaks(found),
        () => {},
      );
    }
    return () => {
      current = false;
    };
  }, [opened]);
  return peaks;
}

/** The name of the file chosen last: browsers forget the file itself at a reload. */
function useRemembered(recording: string, opened: Opened | null): string | null {
  const key = `paso.media.${recording}`;
  useEffect(() => {
    if (opened) localStorage.setItem(key, opened.file.name);
  }, [key, opened]);
  return localStorage.getItem(key);
}

function label(recording: ListenView, lit: Focused[]): string {
  const { used, statements } = recording.heard.sums;
  const where = lit[0] && recording.timed ? ` Selected: about ${clock(lit[0].from)}.` : "";
  return `${recording.title}: ${used} of ${statements} statements are used by steps.${where}`;
}

function Marks({
  statements,
  timed,
  place,
}: {
  statements: StatementRow[];
  timed: boolean;
  place: (ms: number) => string;
}) {
  return useMemo(
    () =>
      statements.map((s) => {
        const x = place(timed ? (s.statement.from_ms ?? 0) : s.statement.start);
        if (s.talk) return <circle key={s.statement.start} cx={x} cy="22" r="1.5" fill="var(--strong-line)" />;
        const hollow = s.unused;
        const y = s.kind === "action" ? 7 : s.kind === "caution" ? 11 : 15;
        return (
          <line
            key={s.statement.start}
            x1={x}
            x2={x}
            y1={y}
            y2="24"
            stroke={hollow ? "var(--strong-line)" : "var(--ink)"}
            strokeWidth={hollow ? 1 : 2}
            strokeDasharray={hollow ? "2 2" : undefined}
          />
        );
      }),
    [statements, timed, place],
  );
}

/** The words in hand, inside the sentences around them. */
function Excerpt({ recording, lit }: { recording: ListenView; lit: Focused[] }) {
  const first = lit[0];
  if (!first) return null;
  const said = recording.heard.statements.filter((s) =>
    lit.some((f) => f.start < s.statement.end && s.statement.start < f.end),
  );
  const at = said[0] ? recording.heard.statements.indexOf(said[0]) : -1;
  const before = recording.heard.statements[at - 1]?.statement.text;
  const after = recording.heard.statements[at + said.length]?.statement.text;
  return (
    <Words>
      {recording.timed && <time>≈ {clock(first.from)}</time>}
      {before && <span>… {before} </span>}
      {said.map((s) => (
        <span key={s.statement.start}>
          <mark title={labels.StatementKind[s.kind]}>{s.statement.text}</mark>{" "}
        </span>
      ))}
      {after && <span>{after} …</span>}
    </Words>
  );
}
