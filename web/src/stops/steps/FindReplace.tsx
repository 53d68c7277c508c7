/** Find and replace over all words of the manual, undone at once. */
import { useId, useState } from "react";
import styled from "styled-components";
import { sentence, type TextHit } from "../../api/client";
import { useFind, useHand } from "../../api/manual";
import { Button, PrimaryButton, Quiet, TextInput, Wrong } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { plural } from "../../parts/words";
import { space } from "../../theme";

const Box = styled.form`
  display: grid;
  gap: ${space.normal};
  max-width: 820px;
`;
const Field = styled.div`
  display: grid;
  gap: ${space.hair};
  width: 18em;
  label { font-size: 0.86rem; color: var(--soft); }
`;
const Hits = styled.ul`
  display: grid;
  li { display: grid; grid-template-columns: 9em minmax(0, 1fr) auto; gap: ${space.small}; padding: 5px 0; border-top: 1px solid var(--line); align-items: start; }
  mark { background: var(--hazard-wash); color: inherit; font-weight: 650; }
`;

export function FindReplace({ onShow }: { onShow: (step: string) => void }) {
  const { edit } = useHand();
  const [find, setFind] = useState("");
  const [replacement, setReplacement] = useState("");
  const [matchCase, setMatchCase] = useState(false);
  const [wholeWords, setWholeWords] = useState(true);
  const [wrong, setWrong] = useState<string | null>(null);
  const wanted = { find, match_case: matchCase, whole_words: wholeWords };
  const hits = useFind(wanted);
  const places = (hits.data ?? []).reduce((n, h) => n + h.at.length, 0);
  const replace = async () => {
    const result = await edit({ text: { replace: { wanted, with: replacement } } });
    setWrong(result.ok ? null : result.problem.detail);
  };
  return (
    <Box
      onSubmit={(event) => {
        event.preventDefault();
        if (places > 0) void replace();
      }}
    >
      <Row>
        <Labelled name="Find" value={find} onChange={setFind} />
        <Labelled name="Replace with" value={replacement} onChange={setReplacement} />
        <PrimaryButton type="submit" isDisabled={places === 0}>
          {places > 0 ? `Replace ${plural(places, "place")}` : "Replace"}
        </PrimaryButton>
      </Row>
      <Row>
        <label>
          <input type="checkbox" checked={wholeWords} onChange={(e) => setWholeWords(e.target.checked)} /> whole words
        </label>
        <label>
          <input type="checkbox" checked={matchCase} onChange={(e) => setMatchCase(e.target.checked)} /> capitals count
        </label>
      </Row>
      {wrong && <Wrong>{wrong}</Wrong>}
      {hits.error && <Wrong>{sentence(hits.error)}</Wrong>}
      {find === "" && <Quiet>Titles, sentences, notes, cautions, parts and guides are all looked through.</Quiet>}
      {find !== "" && hits.data && (
        <Quiet role="status">
          {places === 0
            ? `“${find}” stands nowhere.`
            : `${plural(places, "place")} in ${plural(hits.data.length, "text")}`}
        </Quiet>
      )}
      <Hits>
        {(hits.data ?? []).map((hit) => (
          <li key={`${hit.id}${hit.what}${hit.text}`}>
            <Quiet as="span">{hit.what}</Quiet>
            <Marked hit={hit} />
            {hit.step ? <Button onPress={() => onShow(hit.step ?? "")}>Show it</Button> : <span />}
          </li>
        ))}
      </Hits>
    </Box>
  );
}

function Labelled(props: { name: string; value: string; onChange: (typed: string) => void }) {
  const id = useId();
  return (
    <Field>
      <label htmlFor={id}>{props.name}</label>
      <TextInput id={id} value={props.value} onChange={(event) => props.onChange(event.target.value)} />
    </Field>
  );
}

/** The text with what was found marked; places are counted in whole characters. */
function Marked({ hit }: { hit: TextHit }) {
  const chars = [...hit.text];
  const ends = hit.at.map(([, end]) => end ?? 0);
  return (
    <span>
      {hit.at.map(([start = 0, end = 0], i) => (
        <span key={start}>
          {chars.slice(ends[i - 1] ?? 0, start).join("")}
          <mark>{chars.slice(start, end).join("")}</mark>
        </span>
      ))}
      {chars.slice(ends.at(-1) ?? 0).join("")}
    </span>
  );
}
