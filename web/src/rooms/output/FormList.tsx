import { type FeatureId, type FormId, type OutputOptions, refusalsOf } from '@core';
import { CircleSlash, Package, Trash2 } from 'lucide-react';
import { OUTPUTS, PURPOSES, type Purpose } from '../../outputs';
import { IconButton } from '../../ui';

/** Settings that were kept under a name. */
export interface Preset {
  readonly name: string;
  readonly form: string;
  readonly options: OutputOptions;
}

const GROUPS: readonly { readonly label: string; readonly forms: readonly FormId[] }[] = [
  { label: 'For pages and players', forms: ['animated-svg', 'css', 'lottie', 'element', 'clip-path'] },
  { label: 'For engineers', forms: ['module', 'path-data'] },
  { label: 'One picture', forms: ['still-svg', 'still-png'] },
  { label: 'Pictures in a row', forms: ['gif', 'apng', 'png-sequence', 'sprite-sheet'] },
  { label: 'Video', forms: ['mp4', 'webm'] },
];

/** What can be made, by what it is; above it what it may be for, below it own presets. */
export function FormList({
  chosen,
  features,
  presets,
  onChoose,
  onPurpose,
  onEverything,
  onPreset,
  onForget,
}: {
  readonly chosen: FormId;
  /** What the piece has; null as long as nobody has looked. */
  readonly features: readonly FeatureId[] | null;
  readonly presets: readonly Preset[];
  readonly onChoose: (form: FormId) => void;
  readonly onPurpose: (purpose: Purpose) => void;
  readonly onEverything: (purpose: Purpose) => void;
  readonly onPreset: (preset: Preset) => void;
  readonly onForget: (preset: Preset) => void;
}) {
  return (
    <aside className="details output-forms" aria-label="Forms">
      <div className="details-body">
        <h2>For what?</h2>
        <ul className="output-purposes two-columns">
          {PURPOSES.map((purpose) => (
            <li key={purpose.id}>
              <button type="button" className="output-form" title={purpose.hint} onClick={() => onPurpose(purpose)}>
                {purpose.label}
              </button>
              <IconButton
                icon={Package}
                label={`Everything for ${purpose.label.toLowerCase()} as one ZIP`}
                onClick={() => onEverything(purpose)}
              />
            </li>
          ))}
        </ul>
        {GROUPS.map(({ label, forms }) => (
          <section key={label}>
            <h3>{label}</h3>
            <ul>
              {forms.map((id) => {
                const form = OUTPUTS.find((each) => each.id === id);
                const refusals = features ? refusalsOf(id, features) : [];
                if (!form) return null;
                return (
                  <li key={id}>
                    <button
                      type="button"
                      className={`output-form ${id === chosen ? 'chosen' : ''}`}
                      aria-pressed={id === chosen}
                      title={refusals.length > 0 ? refusals.map(({ reason }) => reason).join(' ') : form.about}
                      onClick={() => onChoose(id)}
                    >
                      {form.label}
                      {refusals.length > 0 && <CircleSlash size={13} aria-label="cannot show this piece" />}
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
        {presets.length > 0 && (
          <section>
            <h3>Own presets</h3>
            <ul className="output-purposes">
              {presets.map((preset) => (
                <li key={preset.name}>
                  <button type="button" className="output-form" onClick={() => onPreset(preset)}>
                    {preset.name}
                  </button>
                  <IconButton icon={Trash2} label={`Forget ${preset.name}`} onClick={() => onForget(preset)} />
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </aside>
  );
}
