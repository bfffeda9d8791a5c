interface RunHereProps {
  /** What the mail here would be sorted by: `it`, `them`. */
  by?: string;
  on: boolean;
  onChange: (on: boolean) => void;
}

/** Whether a standing decision goes for the mail here too, or only for what is to come. */
export function RunHere({ by = 'it', on, onChange }: RunHereProps) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={(e) => onChange(e.target.checked)}
      />
      Sort the mail here by {by} too
    </label>
  );
}
