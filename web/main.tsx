import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import "@fontsource/source-serif-4/400.css";
import "@fontsource/source-serif-4/600.css";
import "@fontsource/source-sans-3/400.css";
import "@fontsource/source-sans-3/600.css";
import "./styles/index.scss";
import { SongList } from "./pages/SongList";
import { SongPage } from "./pages/SongPage";

function ToChords() {
  const { id } = useParams();
  return <Navigate replace to={`/songs/${id}/chords`} />;
}

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <BrowserRouter>
      <Routes>
        <Route path="/" element={<SongList />} />
        <Route path="/songs/:id" element={<ToChords />} />
        <Route path="/songs/:id/:workspace" element={<SongPage />} />
        <Route path="*" element={<Navigate replace to="/" />} />
      </Routes>
    </BrowserRouter>
  </StrictMode>,
);
