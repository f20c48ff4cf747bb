import type { Format } from "../format";
import { writeMidi } from "../midi";
import { readMidi } from "../midiRead";
import { songOfMidi } from "../midiSong";

/** Standard MIDI Files (MMA RP-001), type 0 and 1 in, type 1 out. */
export const midiFile: Format = {
  id: "midi",
  title: "MIDI file",
  explanation:
    "One track a part, drums on the General MIDI map, with tempo, meter, key and names; glides as pitch bend. " +
    "Muted parts are included.",
  extensions: ["mid", "midi"],
  media: "audio/midi",
  read(bytes, name) {
    const contents = readMidi(bytes);
    return contents.ok ? songOfMidi(contents.value, name.replace(/\.[^.]*$/, "")) : contents;
  },
  ways: [
    { id: "played", title: "As it is played", write: (song) => writeMidi(song, { swing: "played" }) },
    { id: "straight", title: "Straight, as written", write: (song) => writeMidi(song, { swing: "straight" }) },
  ],
};
