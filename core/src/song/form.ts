import { keyName } from "../theory/pitch/key";
import type { Bpm, Meter, Seconds, Ticks } from "../theory/time/meter";
import { ticksToSeconds } from "../theory/time/swing";
import { sectionMeter, sectionTempo } from "./document";
import { passPlace } from "./place";
import { frameOf } from "./realize";
import type { Pass, Song } from "./schema";

/** A pass as the form shows it. */
export interface FormPass {
  id: string;
  section: string;
  name: string;
  /** Which time its section is played, from 1. */
  time: number;
  bars: number;
  meter: Meter;
  tempo: Bpm;
  key: string;
  /** Where it begins in the whole song, and how long it lasts. */
  start: Ticks;
  duration: Ticks;
  startSeconds: Seconds;
  seconds: Seconds;
  /** What is different here from its section, in words: "bars 1 to 4", "up 2 semitones", "Organ out", "own bar 8". */
  own: string[];
  /** Key, tempo or meter that are not those of the song. */
  unlike: string[];
}

const barsText = (from: number, to: number): string => (to - from === 1 ? `bar ${to}` : `bars ${from + 1} to ${to}`);

function ownOf(song: Song, pass: Pass): string[] {
  const names = (pass.muted ?? []).map((id) => song.parts.find((p) => p.id === id)?.name ?? id);
  const { transpose = 0 } = pass;
  return [
    ...(pass.bars ? [`only ${barsText(...pass.bars)}`] : []),
    ...(transpose
      ? [
          `${Math.abs(transpose)} ${Math.abs(transpose) === 1 ? "semitone" : "semitones"} ` +
            `${transpose > 0 ? "up" : "down"}`,
        ]
      : []),
    ...(names.length ? [`without ${names.join(", ")}`] : []),
    ...(pass.own ?? []).map((o) => `${barsText(...o.bars)} its own`),
    ...(pass.playing && Object.keys(pass.playing).length ? ["played in its own way"] : []),
  ];
}

/** The passes of a song in order, with their times: exact also where tempo and meter change. Nothing is realized. */
export function formOf(song: Song): FormPass[] {
  const times = new Map<string, number>();
  let [start, startSeconds] = [0, 0];
  return song.form.flatMap((pass): FormPass[] => {
    const frame = frameOf(song, passPlace(song, pass.id));
    if (!frame) return [];
    const { section, meter } = frame;
    const time = (times.get(section.id) ?? 0) + 1;
    times.set(section.id, time);
    const tempo = sectionTempo(song, section);
    const duration = frame.to - frame.from;
    const seconds = ticksToSeconds(duration, tempo);
    const key = keyName(frame.key);
    const out: FormPass = {
      id: pass.id,
      section: section.id,
      name: pass.name ?? section.name,
      time,
      bars: duration / meter.bar,
      meter,
      tempo,
      key,
      start,
      duration,
      startSeconds,
      seconds,
      own: ownOf(song, pass),
      unlike: [
        ...(key !== song.key ? [key] : []),
        ...(sectionMeter(song, section).text !== song.meter ? [meter.text] : []),
        ...(tempo !== song.tempo ? [`♩ = ${tempo}`] : []),
      ],
    };
    start += duration;
    startSeconds += seconds;
    return [out];
  });
}

/** Seconds as minutes and seconds: 172.8 → "2:52.8"; whole seconds without a fraction. */
export function timeText(seconds: Seconds): string {
  const tenths = Math.round(seconds * 10);
  const [minutes, rest] = [Math.floor(tenths / 600), tenths % 600];
  const text = `${minutes}:${String(Math.floor(rest / 10)).padStart(2, "0")}`;
  return rest % 10 ? `${text}.${rest % 10}` : text;
}
