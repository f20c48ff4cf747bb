import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartOptions } from "chart.js";
import { Bar } from "react-chartjs-2";
import { firstOf, nth, type Overview, type OverviewBar, Pitch, Song, Text } from "../../../core/src/index";
import { usePlayback } from "../../app/store/playback";
import { showSection } from "../../app/store/selection";
import { songNow } from "../../app/store/song";

Chart.defaults.font.family = '"Source Sans 3", system-ui, sans-serif';
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** The colors of the application, as they are now. */
const color = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();

/** A bar of the chart ends a little past its pitch. */
const nameOf = (x: number): string =>
  Pitch.typeset(Pitch.name(Math.round(x), Pitch.plain(((Math.round(x) % 12) + 12) % 12, true)));

const SEVERITIES = ["fault", "warning", "note"] as const;

export default function Charts({ overview, section }: { overview: Overview; section: string }) {
  return (
    <>
      <Trouble bars={overview.bars} section={section} />
      <Registers overview={overview} />
    </>
  );
}

/** Goes to a bar of the form: its section comes into view, and playing begins there. */
function goTo({ section, bar }: OverviewBar): void {
  const song = songNow();
  const there = Song.section(song, section);
  if (!there) return;
  showSection(section);
  usePlayback.setState({ from: (bar - 1) * Song.meterOf(song, there).bar });
}

function Trouble({ bars, section }: { bars: readonly OverviewBar[]; section: string }) {
  const total = (b: OverviewBar) => b.found.fault + b.found.warning + b.found.note;
  const sum = bars.reduce((n, b) => n + total(b), 0);
  const worst = bars.reduce((a, b) => (total(b) > total(a) ? b : a), firstOf(bars));
  const tones = { fault: color("fault"), warning: color("kick"), note: color("tone-strong") };
  const ink = color("muted");
  const options: ChartOptions<"bar"> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    onClick: (_, [hit]) => hit && goTo(nth(bars, hit.index)),
    scales: {
      x: {
        stacked: true,
        grid: { display: false },
        ticks: {
          color: (c) => (bars[c.index]?.section === section ? color("ink") : ink),
          autoSkip: false,
          maxRotation: 0,
          // A pass is named where it begins.
          callback: (_, i) => (i === 0 || nth(bars, i).pass !== nth(bars, i - 1).pass ? nth(bars, i).name : ""),
        },
      },
      y: { stacked: true, ticks: { color: ink, precision: 0 }, grid: { color: color("hair") } },
    },
    plugins: {
      tooltip: {
        callbacks: {
          title: ([item]) => (item ? `${nth(bars, item.dataIndex).name}, bar ${nth(bars, item.dataIndex).bar}` : ""),
          label: (item) => Text.counted(Number(item.raw), item.dataset.label ?? ""),
        },
      },
    },
  };
  return (
    <>
      <h3>Over the form</h3>
      <p className="small">
        {sum
          ? `What was found, bar by bar; most in ${worst.name}, bar ${worst.bar}. A click goes there.`
          : "Nothing was found in any section."}
      </p>
      <div
        className="chart trouble"
        role="img"
        aria-label={`${Text.counted(sum, "place")} over ${Text.counted(bars.length, "bar")}`}
      >
        <Bar
          options={options}
          data={{
            labels: bars.map((_, i) => i),
            datasets: SEVERITIES.map((s) => ({
              label: s,
              data: bars.map((b) => b.found[s]),
              backgroundColor: tones[s],
              barPercentage: 1,
              categoryPercentage: 0.94,
            })),
          }}
        />
      </div>
    </>
  );
}

/** C1 to C7. */
const [LOW, HIGH] = [24, 96];

function Registers({ overview: { registers } }: { overview: Overview }) {
  if (!registers.length) return null;
  const options: ChartOptions<"bar"> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    indexAxis: "y",
    scales: {
      x: {
        min: Math.min(LOW, ...registers.map((r) => r.low)),
        max: Math.max(HIGH, ...registers.map((r) => r.high)),
        ticks: { stepSize: 12, color: color("muted"), callback: (v) => nameOf(Number(v)) },
        grid: { color: color("hair") },
      },
      y: { stacked: true, grid: { display: false }, ticks: { color: color("ink"), autoSkip: false } },
    },
    plugins: {
      tooltip: {
        callbacks: {
          label: (item) => {
            const [from, to] = item.raw as [number, number];
            return `${item.dataset.label}: ${nameOf(from)} to ${nameOf(to)}`;
          },
        },
      },
    },
  };
  const words = registers.map((r) => `${r.name} ${nameOf(r.low)} to ${nameOf(r.high)}`).join("; ");
  const short = (name: string) => (name.length > 14 ? `${name.slice(0, 13)}…` : name);
  return (
    <>
      <h3>Register by part</h3>
      <p className="small">
        Pale: from the lowest to the highest note. Dark: where the part spends four fifths of its time.
      </p>
      <div
        className="chart"
        style={{ height: 46 + 24 * registers.length }}
        role="img"
        aria-label={`Registers: ${words}`}
      >
        <Bar
          options={options}
          data={{
            labels: registers.map((r) => short(firstOf(r.name.split(",")))),
            datasets: [
              {
                label: "most of its time",
                data: registers.map((r): [number, number] => [r.middle[0] - 0.4, r.middle[1] + 0.4]),
                backgroundColor: color("tone-strong"),
                barThickness: 11,
                grouped: false,
                order: 0,
              },
              {
                label: "all of it",
                data: registers.map((r): [number, number] => [r.low - 0.4, r.high + 0.4]),
                backgroundColor: color("tone"),
                barThickness: 11,
                grouped: false,
                order: 1,
              },
            ],
          }}
        />
      </div>
    </>
  );
}
