import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { QueryClient } from "@tanstack/react-query";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, newerThan, sentence, take } from "../api/client";
import type { Catalogue, OwnRow, OwnShelf } from "../api/types";
import { useNotice } from "./notice";
import { Dialog } from "./Dialog";
import { Field, Pick } from "./Field";
import { COMPONENTS } from "../format/words";
import { condensed } from "../theme/theme";
import { KeepOrLeave } from "./KeepOrLeave";
import { Wrong } from "./Wrong";

const NAMES: Record<OwnShelf["shelf"], string> = {
  tubes: "tube",
  nuts: "nut or stud",
  hoses: "hose",
  clamps: "clamp",
  benders: "bender",
  flarers: "flaring tool",
  benches: "bench",
  components: "component",
};

type Draft = { id: string | null; version: number; fields: Record<string, string> };

const refreshed = (client: QueryClient) =>
  Promise.all(
    [["own"], ["catalogue"], ["kit"], ["jobs"], ["tool"]].map((queryKey) => client.invalidateQueries({ queryKey })),
  );

/** One more entry of the shop's own, made where it is missed and taken there. */
export function AddOwn({
  shelf,
  text,
  preset,
  catalogue,
  onAdded,
}: {
  shelf: OwnShelf["shelf"];
  text: string;
  preset: Record<string, string>;
  catalogue: Catalogue;
  onAdded: (row: OwnRow) => void;
}) {
  const own = useQuery({ queryKey: ["own"], queryFn: () => take(api.GET("/api/own")) });
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const here = own.data?.find((item) => item.shelf === shelf);
  if (!here) return null;
  return (
    <>
      <Button size="small" variant="text" onClick={() => setOpen(true)}>
        {text}
      </Button>
      {open && (
        <OwnForm
          shelf={here}
          catalogue={catalogue}
          draft={{ id: null, version: 0, fields: preset }}
          onClose={() => setOpen(false)}
          onKept={(row) => refreshed(client).then(() => onAdded(row))}
        />
      )}
    </>
  );
}

/** What the shop has added to this part of the catalogue; tubes, nuts, hoses and clamps can be. */
export function OwnEntries({ shelf, catalogue }: { shelf: string; catalogue: Catalogue }) {
  const own = useQuery({ queryKey: ["own"], queryFn: () => take(api.GET("/api/own")) });
  const [draft, setDraft] = useState<Draft | null>(null);
  const client = useQueryClient();
  const notice = useNotice();
  const here = own.data?.find((item) => item.shelf === shelf);
  if (!here) return null;
  const refresh = () => refreshed(client);
  const one = (id: string) => ({ params: { path: { entry_id: id } } });
  const fail = (error: unknown) => notice({ text: sentence(error) });
  const remove = (row: OwnRow) =>
    void take(
      api.DELETE("/api/own/{entry_id}", { params: { path: { entry_id: row.id }, query: { version: row.version } } }),
    )
      .then(refresh)
      .then(() =>
        notice({
          text: "The entry is taken out; lines that use it will say so.",
          undo: () =>
            void take(api.POST("/api/own/{entry_id}/restore", one(row.id)))
              .then(refresh)
              .catch(fail),
        }),
      )
      .catch((error: unknown) => {
        fail(error);
        void refresh();
      });
  return (
    <Box component="section" aria-label="The shop’s own entries" sx={{ mb: 2 }}>
      {here.rows.map((row) => (
        <Box
          key={row.id}
          data-own={row.row_id}
          sx={{ display: "flex", gap: 1, alignItems: "center", borderBottom: "1px solid var(--rule)" }}
        >
          <Box sx={{ font: `600 16px ${condensed}` }}>own</Box>
          <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
            {here.fields
              .map((field) => said(catalogue, field.picks, row.fields[field.name] ?? ""))
              .filter(Boolean)
              .join(" · ")}
          </Box>
          <Button
            size="small"
            variant="text"
            onClick={() => setDraft({ id: row.id, version: row.version, fields: row.fields })}
          >
            Correct
          </Button>
          <Button
            size="small"
            variant="text"
            aria-label={`Take out ${Object.values(row.fields).join(" ")}`}
            onClick={() => remove(row)}
            sx={{ minWidth: 36 }}
          >
            ✕
          </Button>
        </Box>
      ))}
      <Button size="small" sx={{ mt: 1 }} onClick={() => setDraft({ id: null, version: 0, fields: {} })}>
        Add a {NAMES[here.shelf]} of our own…
      </Button>
      {draft && (
        <OwnForm shelf={here} catalogue={catalogue} draft={draft} onClose={() => setDraft(null)} onKept={refresh} />
      )}
    </Box>
  );
}

type Named = { id: string; name: string };

const plain = (...names: string[]): Named[] => names.map((name) => ({ id: name, name }));

function picksOf(catalogue: Catalogue, picks: string): Named[] {
  const lists: Record<string, readonly Named[]> = {
    materials: catalogue.materials,
    fittings: catalogue.fittings,
    hose_classes: catalogue.hose_classes,
    clamp_kinds: catalogue.clamp_kinds,
    tool_kinds: catalogue.tool_kinds,
    flare_kinds: plain("every flare", "double", "single", "bulb"),
    flare_places: plain("bench", "on the machine"),
    component_kinds: plain(...COMPONENTS),
    component_families: catalogue.component_families,
    seats: catalogue.seats,
  };
  return (lists[picks] ?? []).map(({ id, name }) => ({ id, name }));
}

const said = (catalogue: Catalogue, picks: string, value: string) =>
  picksOf(catalogue, picks).find((item) => item.id === value)?.name ?? value;

function OwnForm({
  shelf,
  catalogue,
  draft,
  onClose,
  onKept,
}: {
  shelf: OwnShelf;
  catalogue: Catalogue;
  draft: Draft;
  onClose: () => void;
  onKept: (row: OwnRow) => Promise<unknown>;
}) {
  const [fields, setFields] = useState(draft.fields);
  const [problem, setProblem] = useState("");
  const [version, setVersion] = useState(draft.version);
  const submit = () => {
    const body = { shelf: shelf.shelf, fields };
    const kept =
      draft.id === null
        ? take(api.POST("/api/own", { body }))
        : take(api.PUT("/api/own/{entry_id}", { params: { path: { entry_id: draft.id }, query: { version } }, body }));
    void kept
      .then(onKept)
      .then(onClose)
      .catch((error: unknown) => {
        setProblem(sentence(error));
        setVersion(newerThan(error) ?? version);
      });
  };
  return (
    <Dialog
      title={draft.id === null ? `A ${NAMES[shelf.shelf]} of our own` : "Correct our own entry"}
      onClose={onClose}
      onSubmit={submit}
      actions={<KeepOrLeave onClose={onClose} stale={version !== draft.version} />}
    >
      {shelf.fields.map((field) => {
        const value = fields[field.name] ?? "";
        const set = (text: string) => setFields((was) => ({ ...was, [field.name]: text.slice(0, 120) }));
        return field.kind === "pick" ? (
          <Pick
            key={field.name}
            label={field.label}
            value={value}
            options={picksOf(catalogue, field.picks)}
            onChange={set}
          />
        ) : (
          <Field
            key={field.name}
            label={field.label}
            text={value}
            placeholder={field.optional ? `${field.example}, or blank` : field.example}
            takes={field.kind === "length" || field.kind === "room" ? "length" : undefined}
            onText={set}
          />
        );
      })}
      <Box sx={{ fontSize: 14, color: "var(--second)", mt: 1 }}>
        It is marked as the shop’s own wherever it is used. A bare figure is in millimetres.
      </Box>
      <Wrong text={problem} />
    </Dialog>
  );
}
