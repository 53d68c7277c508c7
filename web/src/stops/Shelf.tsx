/** The shelf: every manual, and the way a new one begins. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Archive, ArchiveRestore, FilePlus2, Pencil, Search, Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, authorName, must, newId, sentence, setAuthorName } from "../api/client";
import { Button, CommitField, ErrorNote, Heading, IconButton, Muted, TextInput, Waiting } from "../parts/controls";
import { plural, when } from "../parts/format";
import { font, narrow, space } from "../theme";
import { NewManual } from "./NewManual";

const Page = styled.main`
  max-width: 1120px;
  margin: 0 auto;
  padding: ${space.wide};
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: ${space.page};
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`;
const Top = styled.header`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.normal};
  h1 { font: 800 1.5rem ${font.plain}; color: var(--accent); }
  p { flex: 1; }
`;
const Find = styled.div`
  display: flex;
  gap: ${space.small};
  align-items: center;
  margin-bottom: ${space.small};
  & > div { flex: 1; display: flex; align-items: center; gap: ${space.small}; }
`;
const Rows = styled.ul`
  border-top: 1px solid var(--line);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: ${space.hair} ${space.normal};
    align-items: center;
    border-bottom: 1px solid var(--line);
    padding: ${space.small} 0;
  }
  a { font: 600 1.1rem ${font.text}; text-decoration: none; color: var(--ink); }
  a:hover { color: var(--accent); text-decoration: underline; }
  div:last-child { display: flex; }
`;

export function Shelf() {
  const [find, setFind] = useState("");
  const [shown, setShown] = useState<"shelf" | "archive" | "deleted">("shelf");
  const archived = shown === "archive";
  const toggle = (other: "archive" | "deleted") => setShown(shown === other ? "shelf" : other);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [gone, setGone] = useState<{ id: string; title: string } | null>(null);
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ["shelf", find, archived],
    queryFn: () => must(api.GET("/api/manuals", { params: { query: { find, archived } } })),
    placeholderData: (before) => before,
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ["shelf"] });
  const putAway = useMutation({
    mutationFn: ({ id, to }: { id: string; to: boolean }) =>
      must(api.PATCH("/api/manuals/{id}", { params: { path: { id } }, body: { archived: to } })),
    onSettled: refresh,
  });
  const remove = useMutation({
    mutationFn: (row: { id: string; title: string }) =>
      must(api.DELETE("/api/manuals/{id}", { params: { path: { id: row.id } } })),
    onSuccess: (_, row) => setGone(row),
    onSettled: refresh,
  });
  const restore = useMutation({
    mutationFn: (id: string) => must(api.POST("/api/manuals/{id}/restore", { params: { path: { id } } })),
    onSuccess: () => setGone(null),
    onSettled: refresh,
  });
  useEffect(() => {
    document.title = "Shelf – Paso";
  }, []);

  return (
    <Page>
      <Top>
        <h1>Paso</h1>
        <Muted>From the recording of a teardown to a guide that a stranger can follow.</Muted>
        <AuthorName />
      </Top>
      <section aria-label="Manuals">
        <Find>
          <div>
            <Search size={18} aria-hidden />
            <TextInput
              type="search"
              aria-label="Find a manual"
              placeholder="Find by title, device, step or part"
              value={find}
              maxLength={200}
              onChange={(e) => setFind(e.target.value)}
            />
          </div>
          <Button aria-pressed={archived} onPress={() => toggle("archive")}>
            {archived ? "Back to the shelf" : "Archive"}
          </Button>
          <Button aria-pressed={shown === "deleted"} onPress={() => toggle("deleted")}>
            {shown === "deleted" ? "Back to the shelf" : "Deleted"}
          </Button>
        </Find>
        {gone && shown !== "deleted" && (
          <Find role="status">
            <Muted>“{gone.title}” was deleted.</Muted>
            <Button onPress={() => restore.mutate(gone.id)}>Undo</Button>
          </Find>
        )}
        {[error, putAway.error, remove.error, restore.error].filter(Boolean).map((e) => (
          <ErrorNote key={sentence(e)}>{sentence(e)}</ErrorNote>
        ))}
        {!data && !error && <Waiting>Reading the shelf …</Waiting>}
        {shown === "deleted" && <Deleted onRestore={(id) => restore.mutate(id)} />}
        {shown !== "deleted" && data && data.length === 0 && <Muted>{empty(find, archived)}</Muted>}
        <Rows hidden={shown === "deleted"}>
          {data?.map((row) => (
            <li key={row.id}>
              <div>
                {renaming === row.id ? (
                  <Rename id={row.id} title={row.title} onDone={() => setRenaming(null)} />
                ) : (
                  <Link to={`/manuals/${row.id}`}>{row.title}</Link>
                )}
                <Muted>
                  {[row.device, plural(row.steps, "step"), when(row.updated_at)].filter(Boolean).join(" · ")}
                </Muted>
              </div>
              <div>
                <IconButton aria-label={`Rename ${row.title}`} onPress={() => setRenaming(row.id)}>
                  <Pencil size={17} />
                </IconButton>
                <IconButton
                  aria-label={row.archived ? `Take ${row.title} out of the archive` : `Archive ${row.title}`}
                  onPress={() => putAway.mutate({ id: row.id, to: !row.archived })}
                >
                  {row.archived ? <ArchiveRestore size={17} /> : <Archive size={17} />}
                </IconButton>
                <IconButton aria-label={`Delete ${row.title}`} onPress={() => remove.mutate(row)}>
                  <Trash2 size={17} />
                </IconButton>
              </div>
            </li>
          ))}
        </Rows>
      </section>
      <section aria-label="New manual">
        <Heading>
          <FilePlus2 size={18} aria-hidden /> New manual
        </Heading>
        <NewManual />
      </section>
    </Page>
  );
}

/** What can still be brought back, and until when. */
function Deleted({ onRestore }: { onRestore: (id: string) => void }) {
  const { data, error } = useQuery({ queryKey: ["shelf", "deleted"], queryFn: () => must(api.GET("/api/deleted")) });
  if (error) return <ErrorNote>{sentence(error)}</ErrorNote>;
  if (!data) return <Waiting>Reading what was deleted …</Waiting>;
  if (data.length === 0) return <Muted>Nothing was deleted lately.</Muted>;
  return (
    <Rows aria-label="Deleted manuals">
      {data.map((row) => (
        <li key={row.id}>
          <div>
            <strong>{row.title}</strong>
            <Muted>
              {[row.device, `deleted ${when(row.deleted_at)}`, `can be brought back until ${when(row.purged_from)}`]
                .filter(Boolean)
                .join(" · ")}
            </Muted>
          </div>
          <div>
            <Button aria-label={`Bring back ${row.title}`} onPress={() => onRestore(row.id)}>
              <ArchiveRestore size={16} aria-hidden /> Bring back
            </Button>
          </div>
        </li>
      ))}
    </Rows>
  );
}

const empty = (find: string, archived: boolean) =>
  find
    ? `No manual holds “${find}”.`
    : archived
      ? "Nothing is archived."
      : "The shelf is empty. Bring the transcript of a teardown, or start with an empty manual.";

/** A new title is an ordinary edit of the manual, so it is in its history and can be undone there. */
function Rename({ id, title, onDone }: { id: string; title: string; onDone: () => void }) {
  const queries = useQueryClient();
  const commit = async (value: string) => {
    const view = await must(api.GET("/api/manuals/{id}", { params: { path: { id } } }));
    const { error } = await api.POST("/api/manuals/{id}/edits", {
      params: { path: { id } },
      body: { id: newId(), base_seq: view.seq, edit: { head: { title: value } } },
    });
    if (error) return { ok: false as const, problem: error };
    await queries.invalidateQueries({ queryKey: ["shelf"] });
    await queries.invalidateQueries({ queryKey: ["manual", id] });
    onDone();
    return { ok: true as const };
  };
  return <CommitField label="Title" hideLabel value={title} onCommit={commit} onDone={onDone} autoFocus />;
}

function AuthorName() {
  const [name, setName] = useState(authorName());
  return (
    <div>
      <label htmlFor="author">
        <Muted as="span">Your name </Muted>
      </label>
      <TextInput
        id="author"
        style={{ width: "11em" }}
        value={name}
        maxLength={60}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => {
          setAuthorName(name.trim() || "Local author");
          setName(authorName());
        }}
      />
    </div>
  );
}
