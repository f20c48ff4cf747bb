import { useState, type MouseEvent } from "react";
import { Link, useNavigate } from "react-router";
import type { SongSummary } from "../../shared/songs";
import { api } from "../app/api";
import { Field } from "../kit/Field";
import { Button } from "../kit/Button";

interface Props {
  song: SongSummary;
  rename(title: string): void;
  duplicate(): void;
  remove(): void;
}

/** "Eb major" with its real sign; the list does without the core, so that it is there at once. */
const keyText = (key: string): string => key.replace(/^([A-G])b/, "$1♭").replace("#", "♯");

/** A song of the list: the row opens it, unless a control in it was meant. */
export function SongRow({ song, rename, duplicate, remove }: Props) {
  const [renaming, setRenaming] = useState(false);
  const navigate = useNavigate();
  const { contents } = song;
  const address = `/songs/${song.id}/chords`;
  const open = (e: MouseEvent) => {
    if (contents && !(e.target as HTMLElement).closest("a, button, input")) void navigate(address);
  };
  return (
    <tr className={contents ? "opens" : ""} onClick={open}>
      <td className="title">
        {renaming && (
          <Field
            label={`Title of ${song.title}`}
            value={song.title}
            autoFocus
            commit={(title) => title && rename(title)}
            leave={() => setRenaming(false)}
          />
        )}
        {!renaming && (contents ? <Link to={address}>{song.title}</Link> : song.title)}
      </td>
      {contents ? (
        <>
          <td>{keyText(contents.key)}</td>
          <td className="tabular">{contents.tempo} bpm</td>
          <td className="tabular">{contents.meter}</td>
          <td className="tabular">{contents.bars}</td>
        </>
      ) : (
        <td colSpan={4} className="problem">
          This song cannot be read: {song.problem?.message}
        </td>
      )}
      <td className="tabular">{new Date(song.updatedAt).toLocaleDateString([], { dateStyle: "medium" })}</td>
      <td>
        <div className="actions">
          {contents ? (
            <>
              <Button onClick={() => setRenaming(true)} aria-label={`Rename ${song.title}`}>
                Rename
              </Button>
              <Button onClick={duplicate} aria-label={`Duplicate ${song.title}`}>
                Duplicate
              </Button>
            </>
          ) : (
            <a className="button" href={api.documentUrl(song.id)} download aria-label={`Save ${song.title} to a file`}>
              Save to a file
            </a>
          )}
          <Button onClick={remove} aria-label={`Delete ${song.title}`}>
            Delete
          </Button>
        </div>
      </td>
    </tr>
  );
}
