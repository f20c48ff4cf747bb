import Table from "react-bootstrap/Table";
import { useEffect, useState } from "react";
import { Link } from "react-router";

interface Shipped {
  name: string;
  version: string;
  license: string;
  maker: string;
  note?: string;
}

type State = { at: "working" } | { at: "failed"; why: string } | { at: "done"; list: Shipped[] };

/** Whose work ships with the application, and under which licenses; the list is made when it is built. */
export function About() {
  const [state, setState] = useState<State>({ at: "working" });
  useEffect(() => {
    document.title = "About · Hushed Orchard";
    const asked = new AbortController();
    fetch("/notice.json", { signal: asked.signal })
      .then(async (answer) => {
        if (!answer.ok) throw new Error(`the server answered ${answer.status}`);
        setState({ at: "done", list: (await answer.json()) as Shipped[] });
      })
      .catch((error: unknown) => {
        if (!asked.signal.aborted) setState({ at: "failed", why: error instanceof Error ? error.message : "" });
      });
    return () => asked.abort();
  }, []);
  return (
    <main className="songs-page about-page">
      <header>
        <h1>About Hushed Orchard</h1>
        <p>
          A workbench for people who write songs and arrange them. It runs on your own machine, keeps your songs there,
          and asks nobody else for anything. It is free under the MIT license.
        </p>
        <p>
          <Link to="/">Back to the songs</Link>
        </p>
      </header>
      <h2>The work of others in it</h2>
      {state.at === "working" && <p>Reading the list …</p>}
      {state.at === "failed" && (
        <p className="problem" role="alert">
          The list could not be read ({state.why}). It lies beside the built application as NOTICE.txt.
        </p>
      )}
      {state.at === "done" && (
        <>
          <p>
            {state.list.length} packages, the sampled piano, the typefaces, the music font, the pronouncing dictionary
            and the hyphenation patterns among them. <a href="/NOTICE.txt">Their licenses in full</a>.
          </p>
          <Table bsPrefix="song-table" className="notice-table">
            <thead>
              <tr>
                {["Package", "License", "Made by"].map((title) => (
                  <th key={title} scope="col">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {state.list.map((p) => (
                <tr key={p.name}>
                  <td>
                    {p.name} <span className="muted">{p.version}</span>
                  </td>
                  <td>{p.license}</td>
                  <td>
                    {p.maker}
                    {p.note && <span className="small"> {p.note}</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </>
      )}
    </main>
  );
}
