import { useId } from 'react';
import { LIGHT_WORDS, LIGHTS, type Light } from '@/core/shop/light';

/** Light while the eye looked for the marks. */
export function LightPicker({ light, onLight }: { readonly light: Light; readonly onLight: (light: Light) => void }) {
  const id = useId();
  return (
    <div className="mb-2">
      <label className="form-label" htmlFor={id}>
        Light at the machine
      </label>
      <select
        id={id}
        className="form-select"
        value={light}
        onChange={(event) => {
          const chosen = LIGHTS.find((l) => l === event.target.value);
          if (chosen) onLight(chosen);
        }}
      >
        {LIGHTS.map((l) => (
          <option key={l} value={l}>
            {LIGHT_WORDS[l]}
          </option>
        ))}
      </select>
    </div>
  );
}
