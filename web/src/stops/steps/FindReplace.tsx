/** Find and replace over all words of the manual, undone at once. */
import { useState } from "react";
import styled from "styled-components";
import { sentence, type TextHit } from "../../api/client";
import { useFind, useManual } from "../../api/manual";
import { Button, Check, ErrorNote, Muted, PrimaryButton, Typed } from "../../parts/controls";
import { plural } from "../../parts/format";
import { Row } from "../../parts/layout";
import { space } from "../../theme";

const Box = styled.form`
  display: grid;
  gap: ${space.normal};
  max-width: 820px;
`;
const Hits = styled.ul`
  display: grid;
  li { display: grid; grid-template-columns: 9em minmax(0, 1fr) auto; gap: ${space.small}; padding: 5px 0; border-top: 1px solid var(--line); align-items: start; }
  mark { background: var(--hazard-wash); color: inherit; font-weight: 650; }
`;

export function FindReplace({ onShow }: { onShow: (step: string) => void }) {
  const { edit } = useManual();
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
        <Typed label="Find" width="18em" value={find} onChange={setFind} />
        <Typed label="Replace with" width="18em" value={replacement} onChange={setReplacement} />
        <PrimaryButton type="submit" isDisabled={places === 0}>
          {places > 0 ? `Replace ${plural(places, "place")}` : "Replace"}
        </PrimaryButton>
      </Row>
      <Row>
        <Check checked={wholeWords} onChange={setWholeWords}>
          whole words
        </Check>
        <Check checked={matchCase} onChange={setMatchCase}>
          capitals count
        </Check>
      </Row>
      {wrong && <ErrorNote>{wrong}</ErrorNote>}
      {hits.error && <ErrorNote>{sentence(hits.error)}</ErrorNote>}
      {find === "" && <Muted>Titles, sentences, notes, cautions, parts and guides are all looked through.</Muted>}
      {find !== "" && hits.data && (
        <Muted role="status">
          {places === 0
            ? `“${find}” stands nowhere.`
            : `${plural(places, "place")} in ${plural(hits.data.length, "text")}`}
        </Muted>
      )}
      <Hits>
        {(hits.data ?? []).map((hit) => (
          <li key={`${hit.id}${hit.what}${hit.text}`}>
            <Muted as="span">{hit.what}</Muted>
            <Marked hit={hit} />
            {hit.step ? <Button onPress={() => onShow(hit.step ?? "")}>Show it</Button> : <span />}
          </li>
        ))}
      </Hits>
    </Box>
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
