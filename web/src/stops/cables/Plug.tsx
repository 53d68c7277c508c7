/** One connector: how it opens, how it is made, where its cable runs. */
import { Trash2 } from "lucide-react";
import styled from "styled-components";
import type { CableRow, Edit } from "../../api/client";
import { useManual, usePartChoices } from "../../api/manual";
import { labels } from "../../api/tables";
import { ConnectorDrawing } from "../../parts/ConnectorDrawing";
import { Button, Check, CommitField, FigureField, Heading, Muted, Select } from "../../parts/controls";
import { listOf, options } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Sheet = styled.section`
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: ${space.normal};
  display: grid;
  gap: ${space.small};
  dl { display: grid; grid-template-columns: max-content 1fr; gap: 4px ${space.normal}; }
  dt { color: var(--soft); }
  dd { margin: 0; }
`;

type Field = Extract<Extract<Edit, { connector: unknown }>["connector"], { set: unknown }>["set"]["field"];
const words = (text: string) => text.trim() || null;

export function Plug({ row }: { row: CableRow }) {
  const parts = usePartChoices();
  const { view, edit } = useManual();
  const plug = view.manual.connectors[row.connector];
  if (!plug) return null;
  const { id } = plug;
  const apart = view.order.filter((s) => view.manual.steps[s]?.phase === "teardown");
  const later = apart
    .map((s, n) => ({ id: s, number: n + 1, title: view.manual.steps[s]?.title ?? "" }))
    .filter((s) => s.number > row.step_number);
  const set = (field: Field) => edit({ connector: { set: { id, field } } });
  return (
    <Sheet aria-label={`Connector of the ${row.serves}`}>
      <Heading as="h3">
        {row.serves}, step {row.step_number}
      </Heading>
      {row.drawing && <ConnectorDrawing path={row.drawing} />}
      <dl>
        {row.opens && (
          <>
            <dt>Opens</dt>
            <dd>{row.opens}</dd>
          </>
        )}
        {row.makes && (
          <>
            <dt>Is made</dt>
            <dd>{row.makes}</dd>
          </>
        )}
        {row.sits && (
          <>
            <dt>Sits when</dt>
            <dd>{row.sits}</dd>
          </>
        )}
        {row.wrong && (
          <>
            <dt>Opened wrongly</dt>
            <dd>{row.wrong}</dd>
          </>
        )}
        {row.times != null && (
          <>
            <dt>May be made</dt>
            <dd>about {row.times} times</dd>
          </>
        )}
        {row.closes && (
          <>
            <dt>Laid before</dt>
            <dd>
              step {row.closes.step} of the rebuild, “{row.closes.title}”
            </dd>
          </>
        )}
        {row.tether && (
          <>
            <dt>Hangs</dt>
            <dd>
              the part is lifted in step {row.tether.lifted}, the cable undone in step {row.tether.freed}
            </dd>
          </>
        )}
      </dl>
      {!row.kind && <Muted>Say of which kind it is: how it opens and is made follows from that.</Muted>}
      <Row>
        <Select
          label="Kind"
          value={plug.kind ?? ""}
          options={[["", "not known"], ...options(labels.ConnectorKind)]}
          onChange={(kind) => void set({ kind: kind || null })}
        />
        <Select
          label="Plug of"
          value={plug.serves ?? ""}
          options={[["", "a cable"], ...parts]}
          onChange={(part) => void set({ serves: part || null })}
        />
        <Select
          label="Sits on"
          value={plug.on ?? ""}
          options={[["", "not said"], ...parts]}
          onChange={(on) => void set({ on: on || null })}
        />
        <CommitField
          label="Where on it"
          width="12em"
          value={plug.place ?? ""}
          onCommit={(text) => set({ place: words(text) })}
        />
      </Row>
      <Row>
        <CommitField
          label="Opens so, where the kind does not say it"
          width="22em"
          value={plug.opens ?? ""}
          onCommit={(text) => set({ opens: words(text) })}
        />
        <CommitField
          label="Is made so"
          width="22em"
          value={plug.makes ?? ""}
          onCommit={(text) => set({ makes: words(text) })}
        />
      </Row>
      <Row>
        <CommitField
          label="The cable passes, parted by commas"
          width="22em"
          value={plug.route.map((w) => w.what).join(", ")}
          onCommit={(text) => set({ route: listOf(text) })}
        />
        <CommitField
          label="Wires, such as red to 1; black to 2"
          width="16em"
          value={row.wires}
          onCommit={(text) => set({ wires: text })}
        />
      </Row>
      <Row>
        <CommitField
          label="How a part that hangs on it is held"
          width="22em"
          value={plug.tether ?? ""}
          onCommit={(text) => set({ tether: words(text) })}
        />
        <FigureField
          label="It gives, mm"
          width="6em"
          value={plug.slack_mm}
          onCommit={(slack_mm) => set({ slack_mm })}
        />
        <FigureField label="Bends to, mm" width="6em" value={plug.bend_mm} onCommit={(bend_mm) => set({ bend_mm })} />
        <CommitField
          label="Note"
          width="16em"
          value={plug.note ?? ""}
          onCommit={(text) => set({ note: words(text) })}
        />
      </Row>
      <Row>
        <Check checked={plug.power} onChange={(power) => void set({ power })}>
          brings the power
        </Check>
        <Check checked={plug.temporary} onChange={(temporary) => void set({ temporary })}>
          only to try
        </Check>
        {plug.temporary && (
          <Select
            label="Undone again in"
            value={plug.until ?? ""}
            options={[["", "the same step"], ...later.map((s): [string, string] => [s.id, `${s.number}. ${s.title}`])]}
            onChange={(until) => void set({ until: until || null })}
          />
        )}
        <Button onPress={() => void edit({ connector: { remove: { id } } })}>
          <Trash2 size={15} aria-hidden /> Remove the connector
        </Button>
      </Row>
    </Sheet>
  );
}
