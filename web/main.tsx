import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Link, Navigate, Route, Routes, useParams } from "react-router";
import "@fontsource/source-serif-4/latin-400.css";
import "@fontsource/source-serif-4/latin-ext-400.css";
import "@fontsource/source-serif-4/latin-600.css";
import "@fontsource/source-serif-4/latin-ext-600.css";
import "@fontsource/source-sans-3/latin-400.css";
import "@fontsource/source-sans-3/latin-ext-400.css";
import "@fontsource/source-sans-3/latin-600.css";
import "@fontsource/source-sans-3/latin-ext-600.css";
import "./kit/styles/index.scss";
import { SongList } from "./pages/SongList";

/** The workbench is loaded when a song is opened: the list comes first. */
const SongPage = lazy(() => import("./pages/SongPage").then((page) => ({ default: page.SongPage })));

const SongPages = lazy(() => import("./pages/SongPages").then((page) => ({ default: page.SongPages })));

const CheckReport = lazy(() => import("./pages/CheckReport").then((page) => ({ default: page.CheckReport })));

const About = lazy(() => import("./pages/About").then((page) => ({ default: page.About })));

function ToChords() {
  const { id } = useParams();
  return <Navigate replace to={`/songs/${id}/chords`} />;
}

function NoPage() {
  return (
    <p className="message">
      There is no page at this address. <Link to="/">To the songs</Link>
    </p>
  );
}

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <BrowserRouter>
      <Suspense fallback={<p className="message muted">Opening …</p>}>
        <Routes>
          <Route path="/" element={<SongList />} />
          <Route path="/about" element={<About />} />
          <Route path="/songs/:id" element={<ToChords />} />
          <Route path="/songs/:id/pages" element={<SongPages />} />
          <Route path="/songs/:id/report" element={<CheckReport />} />
          <Route path="/songs/:id/:workspace" element={<SongPage />} />
          <Route path="*" element={<NoPage />} />
        </Routes>
      </Suspense>
    </BrowserRouter>
  </StrictMode>,
);
