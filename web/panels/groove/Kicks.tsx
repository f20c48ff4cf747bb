import { LOUD_KICK, positionText } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";

/** The main accents of the kick: by rule, or marked by hand. */
export function Kicks({ data }: { data: ScoreData }) {
  const edit = useSong((s) => s.edit);
  const { groove } = data.section;
  const mains = data.kicks.filter((k) => k.main).map((k) => k.start);
  return (
    <>
      <h3>Kick</h3>
      <p className="small">
        Main accents are what the bass must meet: kicks on a beat or with velocity {LOUD_KICK} and more, unless you mark them yourself.
      </p>
      {data.kicks.length ? (
        <>
          <ul className="kicks">
            {data.kicks.map((k) => (
              <li key={k.start}>
                <label>
                  <input
                    type="checkbox"
                    checked={k.main}
                    onChange={(e) =>
                      edit({
                        do: "setAccents",
                        section: data.section.id,
                        accents: e.target.checked ? [...mains, k.start] : mains.filter((m) => m !== k.start),
                      })
                    }
                  />{" "}
                  {positionText(data.meter, k.start)}
                </label>
                <input
                  type="range"
                  min={1}
                  max={127}
                  value={k.velocity}
                  aria-label={`Velocity of the kick at ${positionText(data.meter, k.start)}`}
                  onChange={(e) =>
                    edit({ do: "setHit", section: data.section.id, drum: "kick", start: k.start, velocity: Number(e.target.value) })
                  }
                />
                <span className="tabular">{k.velocity}</span>
              </li>
            ))}
          </ul>
          {groove.accents && (
            <button type="button" onClick={() => edit({ do: "setAccents", section: data.section.id, accents: null })}>
              Back to the rule
            </button>
          )}
        </>
      ) : (
        <p>No kick yet: click into the kick row of the drum lane.</p>
      )}
    </>
  );
}
