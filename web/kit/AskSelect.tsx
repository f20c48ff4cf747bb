import FormSelect from "react-bootstrap/FormSelect";

/** Something that can be done, as it is shown in a list. */
export interface Offer {
  shown: string;
  go(): unknown;
}

/** A list that only asks what to do: nothing stays chosen. Groups without an offer are not shown. */
export function AskSelect({
  label,
  words,
  groups,
}: {
  label: string;
  words: string;
  groups: readonly { title: string; offers: readonly Offer[] }[];
}) {
  const all = groups.flatMap((g) => g.offers);
  return (
    <FormSelect
      bsPrefix="select"
      aria-label={label}
      title={label}
      value=""
      onChange={(e) => e.target.value && all[Number(e.target.value)]?.go()}
    >
      <option value="">{words} …</option>
      {groups.map(
        ({ title, offers }) =>
          offers.length > 0 && (
            <optgroup key={title} label={title}>
              {offers.map((offer) => (
                <option key={offer.shown} value={all.indexOf(offer)}>
                  {offer.shown}
                </option>
              ))}
            </optgroup>
          ),
      )}
    </FormSelect>
  );
}
