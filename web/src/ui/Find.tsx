/** A field to seek in a list by. */

interface Props {
  label?: string;
  value: string;
  onChange: (sought: string) => void;
}

export function Find({ label = "Find", value, onChange }: Props) {
  return (
    <label className="text-ink2">
      {label}
      <input
        className="write ml-2 w-40"
        type="search"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
