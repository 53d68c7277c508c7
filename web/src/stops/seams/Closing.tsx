/** How far a joint opens once nothing holds it, and how it is closed again. */
import type { Seam, SeamRow } from "../../api/client";
import { useManual } from "../../api/manual";
import { labels } from "../../api/tables";
import { CommitField, FigureField, More, Select } from "../../parts/controls";
import { options } from "../../parts/format";
import { Row } from "../../parts/layout";

type Swing = NonNullable<Seam["swing"]>;
type Rebond = NonNullable<Seam["rebond"]>;

const NO_SWING: Swing = { hinge: null, at_most_deg: null, because: null };
const NO_REBOND: Rebond = { with: null, width_mm: null, hook_first: null, press: null, press_s: null, cure_s: null };

/** Nothing, where every field says nothing. */
const orNothing = <T extends object>(value: T) => (Object.values(value).every((v) => v == null) ? null : value);
const minutes = (seconds: number | null | undefined) => (seconds == null ? null : seconds / 60);
const seconds = (minutes: number | null) => (minutes == null ? null : minutes * 60);
const words = (text: string) => text.trim() || null;

export function Closing({ row }: { row: SeamRow }) {
  const { view, edit } = useManual();
  const seam = view.manual.seams[row.seam];
  if (!seam) return null;
  const { id } = seam;
  const [swing, rebond] = [seam.swing ?? NO_SWING, seam.rebond ?? NO_REBOND];
  const bonded = seam.kind === "glue" || seam.kind === "tape";
  const turn = (part: Partial<Swing>) =>
    edit({ seam: { set: { id, field: { swing: orNothing({ ...swing, ...part }) } } } });
  const close = (part: Partial<Rebond>) =>
    edit({ seam: { set: { id, field: { rebond: orNothing({ ...rebond, ...part }) } } } });
  return (
    <More title="How far it opens, and how it is closed again">
      <Row>
        <Select
          label="Stays together at the"
          value={swing.hinge ?? ""}
          options={[["", "lifts straight off"], ...options(labels.FaceEdge)]}
          onChange={(hinge) => void turn({ hinge: hinge || null })}
        />
        <FigureField
          label="Opens at most, °"
          width="8em"
          value={swing.at_most_deg}
          onCommit={(at_most_deg) => turn({ at_most_deg })}
        />
        <CommitField
          label="Because of"
          width="12em"
          value={swing.because ?? ""}
          onCommit={(text) => turn({ because: words(text) })}
        />
        <CommitField
          label="How the halves lie then"
          width="16em"
          value={seam.posture ?? ""}
          onCommit={(text) => edit({ seam: { set: { id, field: { posture: words(text) } } } })}
        />
      </Row>
      <Row>
        <Select
          label="Goes in first at the"
          value={rebond.hook_first ?? ""}
          options={[["", "any edge"], ...options(labels.FaceEdge)]}
          onChange={(edge) => void close({ hook_first: edge || null })}
        />
        {bonded && (
          <>
            <CommitField
              label="Bonded again with"
              width="12em"
              value={rebond.with ?? ""}
              onCommit={(text) => close({ with: words(text) })}
            />
            <FigureField
              label="Wide, mm"
              width="6em"
              value={rebond.width_mm}
              onCommit={(width_mm) => close({ width_mm })}
            />
          </>
        )}
        <CommitField
          label="Pressed with"
          width="12em"
          value={rebond.press ?? ""}
          onCommit={(text) => close({ press: words(text) })}
        />
        <FigureField
          label="Pressed for, min"
          width="8em"
          value={minutes(rebond.press_s)}
          onCommit={(m) => close({ press_s: seconds(m) })}
        />
        {bonded && (
          <FigureField
            label="Left for, min"
            width="7em"
            value={minutes(rebond.cure_s)}
            onCommit={(m) => close({ cure_s: seconds(m) })}
          />
        )}
      </Row>
    </More>
  );
}
