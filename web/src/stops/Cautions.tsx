/** Cautions: what can hurt or break along the steps, why, and whether somebody warns of it in time. */
import styled from "styled-components";
import type { CautionsView, HazardRow } from "../api/client";
import { useCautions, useFindings, useManual } from "../api/manual";
import { labels } from "../api/tables";
import { Chooser } from "../parts/Chooser";
import { Button, Heading, Key, Muted, Pending } from "../parts/controls";
import { Findings } from "../parts/Findings";
import { plural } from "../parts/format";
import { HalvesHead, Lined } from "../parts/halves";
import { Page, Row, Top } from "../parts/layout";
import { useChosen, usePlace } from "../parts/place";
import { SafetySign } from "../parts/SafetySign";
import { useEvidence } from "../parts/tape-context";
import { Warning } from "../parts/Warning";
import { space } from "../theme";
import { Along, told } from "./cautions/Along";
import { HazardSheet } from "./cautions/HazardSheet";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: ${space.wide};
  align-items: start;
  @media (max-width: 1040px) { grid-template-columns: minmax(0, 1fr); }
`;
const Name = styled.span`
  display: flex;
  gap: ${space.small};
  align-items: center;
`;
const Aside = styled.section`
  display: grid;
  gap: ${space.hair};
  margin-top: ${space.normal};
  ul { display: grid; gap: ${space.hair}; }
`;

export default function Cautions() {
  const { data, error } = useCautions();
  if (!data)
    return (
      <Page $width={1280}>
        <Pending error={error}>Looking for hazards …</Pending>
      </Page>
    );
  return <Loaded cautions={data} />;
}

/** A stretch of a hazard is told by what it is and where it begins. */
const keyOf = (row: HazardRow) => `${row.hazard} ${row.steps[0]?.step ?? ""}`;

const open = (row: HazardRow) => row.covered === "late" || (row.covered === "unsaid" && row.declined == null);

function Loaded({ cautions }: { cautions: CautionsView }) {
  const { view, edit } = useManual();
  const [place] = usePlace();
  const { hazards } = cautions;
  const finding = place("finding");
  const linked =
    hazards.find((h) => h.finding != null && h.finding.key === finding) ??
    hazards.find((h) => h.steps[0]?.step === place("step"));
  const unsettled = hazards.find(open) ?? hazards[0];
  const [chosen, setChosen] = useChosen("hazard", {
    linked: linked && keyOf(linked),
    first: unsettled ? keyOf(unsettled) : null,
  });
  const row = hazards.find((h) => keyOf(h) === chosen);
  const first = row?.said[0];
  useEvidence(
    first ? view.manual.cautions[first.caution]?.evidence : view.manual.steps[row?.steps[0]?.step ?? ""]?.evidence,
  );
  // Proposals stand in the list; here is what no row of it shows.
  const found = (useFindings().data?.findings ?? []).filter((f) => f.stop === "cautions" && f.rule !== "hazard-unsaid");
  const proposed = hazards.filter((h) => h.covered === "unsaid" && h.declined == null);
  const fixes = proposed.flatMap((h) => h.finding?.fixes[0]?.edit ?? []);
  const adds = fixes.flatMap((f) => ("caution" in f ? [f.caution] : []));
  return (
    <Page $width={1280}>
      <Top>
        <Heading>Cautions</Heading>
        <Muted role="status">{counted(cautions)}</Muted>
        <Muted as="span">
          <Key>↑</Key> <Key>↓</Key> choose a hazard
        </Muted>
      </Top>
      <Columns data-cautions="">
        <div>
          <Findings name="To look at" findings={found.filter((f) => f.set_aside == null)} />
          {hazards.length === 0 ? (
            <Muted>No step brings a known hazard about. What the narrator warned of stands below.</Muted>
          ) : (
            <>
              <HalvesHead halves={cautions} />
              <Chooser
                label="Hazards"
                chosen={chosen}
                onChoose={setChosen}
                rows={hazards.map((h) => ({
                  id: keyOf(h),
                  name: `${h.name}, ${told(h)}`,
                  shown: (
                    <Lined>
                      <Name>
                        <SafetySign sign={h.sign} size={22} />
                        <span>
                          {h.name}
                          <small>{h.declined == null ? labels.Covered[h.covered] : "declined"}</small>
                        </span>
                      </Name>
                      <Along row={h} halves={cautions} />
                    </Lined>
                  ),
                }))}
              />
              {adds.length > 1 && (
                <Row style={{ marginTop: space.small }}>
                  <Button onPress={() => void edit({ caution: { several: { edits: adds } } })}>
                    Take all {adds.length} proposals
                  </Button>
                </Row>
              )}
            </>
          )}
          <Free cautions={cautions} />
          <Findings name="Decided" findings={found.filter((f) => f.set_aside != null)} />
        </div>
        <div>
          {row ? (
            <HazardSheet key={keyOf(row)} row={row} />
          ) : (
            <Muted>Choose a hazard to see what brings it about.</Muted>
          )}
          <Before cautions={cautions} />
        </div>
      </Columns>
    </Page>
  );
}

function counted({ hazards, free }: CautionsView) {
  const of = (covered: HazardRow["covered"]) =>
    hazards.filter((h) => h.covered === covered && h.declined == null).length;
  const declined = hazards.filter((h) => h.declined != null).length;
  const parts = [
    [of("said"), "said"],
    [of("general"), "said before all work"],
    [of("late"), "said too late"],
    [of("unsaid"), "proposed"],
    [declined, "declined"],
  ] as const;
  const told = parts.flatMap(([n, words]) => (n > 0 ? [`${n} ${words}`] : []));
  const own = free.length > 0 ? `; ${plural(free.length, "caution")} of the narrator's own` : "";
  return `${plural(hazards.length, "hazard")}${told.length > 0 ? `: ${told.join(", ")}` : ""}${own}`;
}

/** What the narrator warned of and the catalogue does not know: as it was told. */
function Free({ cautions }: { cautions: CautionsView }) {
  if (cautions.free.length === 0) return null;
  return (
    <Aside aria-label="Of the narrator's own">
      <Heading as="h3">Of the narrator's own</Heading>
      <ul>
        {cautions.free.map((c) => (
          <li key={c.caution}>
            <Muted as="span">Step {c.step_number}</Muted>
            <Warning head={c.words.head}>{c.words.text}</Warning>
          </li>
        ))}
      </ul>
    </Aside>
  );
}

/** What a reader prepares, where the guide stops, and how plainly it speaks. */
function Before({ cautions: { preparation, gates, readability } }: { cautions: CautionsView }) {
  return (
    <>
      {gates.length > 0 && (
        <Aside aria-label="Where the guide stops">
          <Heading as="h3">Belongs to others</Heading>
          <ul>
            {gates.map((g) => (
              <li key={g.what}>
                {g.belongs} ({g.what}).{" "}
                <b>{g.who ? `Who does it: ${g.who}.` : "Nobody has said who does it: the guide cannot go out."}</b>
              </li>
            ))}
          </ul>
        </Aside>
      )}
      {preparation.length > 0 && (
        <Aside aria-label="Before the first step">
          <Heading as="h3">Before the first step</Heading>
          <ul>
            {preparation.map((p) => (
              <li key={p.what}>
                {p.what} <Muted as="span">{p.because}</Muted>
              </li>
            ))}
          </ul>
        </Aside>
      )}
      {readability.sentences > 0 && (
        <Aside aria-label="Plain words">
          <Heading as="h3">Plain words</Heading>
          <p>
            {plural(readability.sentences, "sentence")} of {readability.words_a_sentence} words on average, the longest
            of {readability.longest}.{" "}
            {readability.too_long > 0
              ? `${plural(readability.too_long, "sentence")} of more than 20 words: Steps shows them.`
              : "None is longer than 20 words."}
          </p>
        </Aside>
      )}
    </>
  );
}
